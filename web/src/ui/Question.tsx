import { Popover } from "radix-ui";
import { createContext, type ReactNode, type RefObject } from "react";
import { useWide } from "./useWide";

/** The version of what a field shows: whatever changes it may change what is wrong in a field, too. */
export const ShownVersion = createContext(0);

type Props = {
  id: string;
  text: string;
  /** Whether it takes the focus to its first choice: after Enter, not when somebody has gone on elsewhere. */
  takesFocus: boolean;
  field: RefObject<HTMLInputElement | null>;
  onLeave: () => void;
  onHide: () => void;
  children?: ReactNode;
};

/**
 * What is wrong with a field and the ways out, beside the field and always whole in the window. There is one at a time:
 * it hides when somebody goes on elsewhere, what was typed stays in the field. Esc leaves the field as it was.
 */
export function Question({ id, text, takesFocus, field, onLeave, onHide, children }: Props) {
  const wide = useWide();
  return (
    <Popover.Portal>
      <Popover.Content
        side={wide ? "right" : "bottom"} // beside the drawing, where there is room
        sideOffset={6}
        collisionPadding={12}
        hideWhenDetached
        className="z-50 w-[min(21rem,calc(100vw-24px))] rounded-sm border-2 border-cut bg-paper p-3 text-left text-[16px] font-medium text-ink shadow-lg"
        onOpenAutoFocus={(event) => {
          if (!takesFocus) event.preventDefault();
        }}
        onCloseAutoFocus={(event) => event.preventDefault()}
        onEscapeKeyDown={(event) => {
          event.preventDefault();
          onLeave();
          field.current?.focus();
        }}
        onInteractOutside={(event) => {
          if (event.target === field.current) event.preventDefault();
          else onHide();
        }}
      >
        <div id={id} role="alert">
          {text}
        </div>
        <div className="mt-2 flex flex-col items-start gap-1.5">
          {children}
          <button
            type="button"
            className="quiet-button"
            onClick={() => {
              onLeave();
              field.current?.focus();
            }}
          >
            Leave as it was
          </button>
        </div>
      </Popover.Content>
    </Popover.Portal>
  );
}
