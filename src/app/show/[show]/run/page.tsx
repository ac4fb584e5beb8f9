import { RunPlace } from "@/ui/run/RunPlace";

export default function Page() {
  return <RunPlace />;
}
