/** A layout file made elsewhere becomes a session; a bad one says where and why. */
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, must } from "../../api/client";
import { FileIn, formOf } from "../../parts/FileIn";
import { useToast } from "../../parts/toast";

export function Upload({ onDone }: { onDone: () => void }) {
  const say = useToast();
  const [trouble, setTrouble] = useState("");
  const send = useMutation({
    mutationFn: (file: File) =>
      must(
        api.POST("/api/sessions/upload", {
          body: { file: file as unknown as string },
          bodySerializer: () => formOf(file),
        }),
      ),
    onSuccess: (s) => {
      onDone();
      say(`${s.name} is read in as a new session`);
    },
    onError: (e) => setTrouble(e.message),
  });
  return (
    <>
      {trouble && (
        <p role="alert" className="max-w-xl text-hollow">
          The file was not read and nothing was changed. {trouble}
        </p>
      )}
      <FileIn
        label="Layout file"
        words="Read a layout file"
        accept=".json,application/json"
        onFile={(file) => {
          setTrouble("");
          send.mutate(file);
        }}
      />
    </>
  );
}
