import { ShowPicker } from "@/ui/picker/ShowPicker";

export default function Page() {
  return <ShowPicker />;
}
