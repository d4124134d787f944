import { Menu, MenuButton, MenuItem, MenuItems } from "@headlessui/react";
import { Ellipsis } from "lucide-react";
import { NavLink } from "react-router";
import type { MoreProps } from "#ui/more";

/** The stations that have no room on the phone's bar, as a menu. */
export default function MoreMenu({ to }: MoreProps) {
  return (
    <Menu>
      <MenuButton className="flex flex-1 flex-col items-center gap-0.5 border-t-2 border-transparent py-2 text-xs text-ink">
        <Ellipsis className="size-5" aria-hidden />
        More
      </MenuButton>
      <MenuItems anchor="top end" className="sheet z-20 grid min-w-44 py-1 [--anchor-gap:4px]">
        {to.map((station) => (
          <MenuItem key={station.to}>
            <NavLink
              to={station.to}
              className="flex min-h-12 items-center px-4 no-underline data-focus:bg-hover"
            >
              {station.name}
            </NavLink>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  );
}
