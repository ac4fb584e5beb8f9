import { CuesPlace } from "@/ui/cues/CuesPlace";

export default function Page() {
  return <CuesPlace />;
}
