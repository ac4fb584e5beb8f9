import { Visualiser } from "@/ui/outside/Visualiser";

export default async function Page({ params }: { params: Promise<{ show: string }> }) {
  return <Visualiser id={(await params).show} />;
}
