import { strings } from "./strings";

const KINDS: Record<string, string> = { "image/png": "png", "image/jpeg": "jpg" };

/** Pictures of a clipboard as files to upload, named by when they were pasted; none where it holds others. */
export function pastedPictures(clipboard: DataTransfer | null, when: string): File[] {
  const pictures = [...(clipboard?.files ?? [])].filter((f) => f.type in KINDS);
  return pictures.map((f, i) => {
    const name = strings.pastedPicture(when, pictures.length > 1 ? i + 1 : 0);
    return new File([f], `${name}.${KINDS[f.type] ?? "png"}`, { type: f.type });
  });
}
