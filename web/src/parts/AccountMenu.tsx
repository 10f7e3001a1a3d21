/** Theme, account, sign-out. */
import { useQueryClient } from "@tanstack/react-query";
import { CircleUserRound } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { api, must } from "../api/client";
import { applyTheme, storedTheme } from "../core/theme";
import { useGo } from "./go";
import { useMe } from "./me";

export const MENU = "z-50 min-w-48 rounded-card border border-hair bg-card p-1";
export const ITEM =
  "flex cursor-pointer items-center justify-between gap-4 rounded-md px-2.5 py-1.5 outline-none data-[highlighted]:bg-tint data-[disabled]:opacity-45";

export function AccountMenu() {
  const me = useMe();
  const go = useGo();
  const queries = useQueryClient();
  const [theme, setTheme] = useState(storedTheme());
  const other = theme === "day" ? "booth" : "day";
  const leave = async () => {
    await must(api.POST("/api/account/sign-out"));
    queries.clear();
    location.assign("/sign-in");
  };
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        className="rounded-full p-1 text-soft hover:text-ink"
        aria-label={`Account of ${me.username}`}
      >
        <CircleUserRound size={22} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={MENU} align="end" sideOffset={6}>
          <DropdownMenu.Item
            className={ITEM}
            onSelect={() => {
              applyTheme(other);
              setTheme(other);
            }}
          >
            {other === "booth" ? "Booth theme, dark" : "Day theme"}
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={() => go("/account")}>
            Account of {me.username}
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={() => void leave()}>
            Sign out
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
