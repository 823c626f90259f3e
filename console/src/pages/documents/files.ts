import type { DocumentFile } from "../../api/client.ts";

/** A file as it is sent: its bytes in Base64. */
export async function sent(file: File): Promise<DocumentFile> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  let text = "";
  for (let at = 0; at < bytes.length; at += 0x8000) text += String.fromCharCode(...bytes.subarray(at, at + 0x8000));
  return { name: file.name, content: btoa(text) };
}

export const text = (file: DocumentFile) =>
  new TextDecoder().decode(Uint8Array.from(atob(file.content ?? ""), (symbol) => symbol.charCodeAt(0)));

/** A name with something behind it, in front of its ending. */
export const named = (name: string, behind: string) => name.replace(/(\.[^.]*)?$/, `${behind}$1`);
