import { CheckPlace } from "@/ui/check/CheckPlace";

export default function Page() {
  return <CheckPlace />;
}
