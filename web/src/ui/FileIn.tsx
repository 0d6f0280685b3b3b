import { Button } from "@mui/material";
import { useId, useRef } from "react";

interface Props {
  label: string;
  accept: string;
  onFile: (file: File) => void;
}

/** A button that opens a file. */
export function FileIn({ label, accept, onFile }: Props) {
  const id = useId();
  const input = useRef<HTMLInputElement>(null);
  return (
    <span>
      <input
        ref={input}
        id={id}
        type="file"
        accept={accept}
        className="sr"
        aria-label={label}
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = "";
          if (file !== undefined) onFile(file);
        }}
      />
      <Button onClick={() => input.current?.click()}>{label}</Button>
    </span>
  );
}
