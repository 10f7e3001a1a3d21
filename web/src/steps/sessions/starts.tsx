/** The choices a session or a layout begins with: kit and starting layout. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, must } from "../../api/client";
import type { Starts } from "../../api/types";
import { FormPick } from "../../parts/fields/Pick";
import { Radios } from "../../parts/fields/Radios";

export function useStarts(enabled = true) {
  return useQuery({
    queryKey: ["starts"],
    queryFn: () => must(api.GET("/api/sessions/starts")),
    enabled,
  });
}

export function KitChoice({ starts }: { starts: Starts | undefined }) {
  const kits = [...new Set([...(starts?.kits ?? []), ...(starts?.own_kits ?? [])])];
  return <FormPick label="Kit" name="kit" start="five-piece" options={kits} />;
}

/** The last of the starts holds until another is chosen. */
export function StartChoice({ starts }: { starts: Starts | undefined }) {
  const options = Object.entries(starts?.starts ?? {});
  const [chosen, choose] = useState<string | null>(null);
  const value = chosen ?? options.at(-1)?.[0] ?? "";
  return (
    <fieldset className="space-y-1">
      <legend className="text-[0.8rem] text-soft">Start with</legend>
      <Radios label="Start with" value={value} options={options} onTake={choose} />
      <input type="hidden" name="start" value={value} />
    </fieldset>
  );
}
