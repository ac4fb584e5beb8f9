import { RigPlace } from "@/ui/rig/RigPlace";

export default function Page() {
  return <RigPlace />;
}
