import { TimecodeMachine } from "@/ui/outside/TimecodeMachine";

export default function Page() {
  return <TimecodeMachine />;
}
