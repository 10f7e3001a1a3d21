/** The choices a session or a layout begins with: kit and starting layout. */
import { useQuery } from "@tanstack/react-query";
import { api, must } from "../../api/client";
import type { Starts } from "../../api/types";

export function useStarts(enabled = true) {
  return useQuery({
    queryKey: ["starts"],
    queryFn: () => must(api.GET("/api/sessions/starts")),
    enabled,
  });
}

export function KitChoice({ starts }: { starts: Starts | undefined }) {
  return (
    <label className="block">
      <span className="text-soft">Kit</span>
      <select
        name="kit"
        className="field w-full"
        defaultValue="five-piece"
        key={starts?.kits.length}
      >
        {[...(starts?.kits ?? []), ...(starts?.own_kits ?? [])].map((k) => (
          <option key={k}>{k}</option>
        ))}
      </select>
    </label>
  );
}

export function StartChoice({ starts }: { starts: Starts | undefined }) {
  return (
    <fieldset className="space-y-1">
      <legend className="text-soft">Start with</legend>
      {Object.entries(starts?.starts ?? {}).map(([name, about], i, every) => (
        <label key={name} className="flex gap-2">
          <input type="radio" name="start" value={name} defaultChecked={i === every.length - 1} />
          <span>
            <strong>{name}</strong> <span className="text-soft">{about}</span>
          </span>
        </label>
      ))}
    </fieldset>
  );
}
