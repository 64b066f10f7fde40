import { useId, useState } from "react";

const inBase64 = (file: File) =>
  new Promise<string>((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result).split(",")[1] ?? "");
    reader.onerror = () => reject(reader.error);
    reader.readAsDataURL(file);
  });

/** A photo taken or chosen, in base64. */
export function PhotoButton({
  label = "Take or choose",
  onPhoto,
}: {
  label?: string;
  onPhoto: (name: string, content: string) => Promise<void>;
}) {
  const [busy, setBusy] = useState(false);
  const id = useId();
  return (
    <label htmlFor={id} className="plain-button shrink-0 cursor-pointer focus-within:outline">
      {busy ? "Sending…" : label}
      <input
        id={id}
        type="file"
        className="sr-only"
        accept="image/jpeg,image/png,image/webp"
        disabled={busy}
        onChange={async (event) => {
          const file = event.target.files?.[0];
          event.target.value = "";
          if (!file) return;
          setBusy(true);
          try {
            await onPhoto(file.name || "photo.jpg", await inBase64(file));
          } finally {
            setBusy(false);
          }
        }}
      />
    </label>
  );
}
