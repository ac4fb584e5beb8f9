import { BuildPlace } from "@/ui/build/BuildPlace";

export default function Page() {
  return <BuildPlace />;
}
