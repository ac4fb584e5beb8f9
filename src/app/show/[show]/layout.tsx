import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { ShowIdSchema } from "@/core/show/showId";
import { Shell } from "@/ui/shell/Shell";

export default async function ShowLayout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ show: string }>;
}) {
  const id = ShowIdSchema.safeParse((await params).show);
  if (!id.success) notFound();
  return <Shell>{children}</Shell>;
}
