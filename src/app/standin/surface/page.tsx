import { SurfaceBoard } from "@/ui/outside/SurfaceBoard";

export default function Page() {
  return <SurfaceBoard />;
}
