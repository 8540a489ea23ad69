import Dialog from "@mui/material/Dialog";
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from "react";
import { say } from "../texts/say";

export interface Command {
  name: string;
  hint: string;
  keys?: string;
  /** It is offered for what was typed, and is nothing that is called so. */
  unnamed?: boolean;
  run: () => void;
}

interface Props {
  commands: readonly Command[];
  /** Write what was typed in the log; nothing where that cannot be done. */
  onLine: ((line: string) => void) | null;
  onClose: () => void;
}

const MOST = 60;

/**
 * How well a text answers what was typed: every word in it, the earlier the better; null when one is missing.
 */
function rank(text: string, words: readonly string[]): number | null {
  const low = text.toLowerCase();
  let sum = 0;
  for (const word of words) {
    const at = low.indexOf(word);
    if (at < 0) return null;
    sum += at + (at > 0 && low[at - 1] !== " " ? 20 : 0);
  }
  return sum;
}

/** Anything by typing: places, beds, structures, and what can be done here. */
export function Palette({ commands, onLine, onClose }: Props) {
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState(0);
  const list = useRef<HTMLUListElement>(null);
  const found = useMemo(() => {
    const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
    const line = typed.trim();
    const fitting = commands
      .map((command, order) => ({ command, order, score: rank(`${command.name} ${command.hint}`, words) }))
      .filter((each) => each.score !== null)
      .sort((a, b) => (a.score ?? 0) - (b.score ?? 0) || a.order - b.order)
      .slice(0, MOST)
      .map((each) => each.command);
    if (onLine && line.length > 2 && (!fitting.length || /\d/.test(line)))
      fitting.push({
        name: say("ui.writeInTheLog", { line }),
        hint: say("ui.savesItInTheLog"),
        unnamed: true,
        run: () => onLine(line),
      });
    return fitting;
  }, [commands, typed, onLine]);
  const nothing = found.every((each) => each.unnamed);
  const index = Math.min(at, Math.max(found.length - 1, 0));
  useEffect(() => {
    list.current?.children[index]?.scrollIntoView({ block: "nearest" });
  }, [index]);
  const run = (command: Command | undefined) => {
    if (!command) return;
    onClose();
    command.run();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1, PageDown: 8, PageUp: -8 }[event.key];
    if (event.key === "Enter") run(found[index]);
    else if (event.key === "Tab") onClose();
    else if (step) setAt(Math.min(Math.max(index + step, 0), found.length - 1));
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      className="noprint"
      transitionDuration={0}
      slotProps={{ paper: { className: "palettebox", "aria-label": say("ui.goAnywhere") } }}
    >
      <input
        // eslint-disable-next-line jsx-a11y/no-autofocus -- it was just asked for
        autoFocus
        role="combobox"
        aria-expanded="true"
        aria-controls="palette-list"
        aria-activedescendant={found[index] ? `palette-${index}` : undefined}
        aria-label={say("ui.aBedASupportAPage")}
        placeholder={say("ui.aBedASupportAPage")}
        value={typed}
        data-typing="true"
        onChange={(event) => {
          setTyped(event.target.value);
          setAt(0);
        }}
        onKeyDown={onKeyDown}
      />
      <ul id="palette-list" role="listbox" aria-label={say("ui.found")} ref={list}>
        {found.map((command, i) => (
          // eslint-disable-next-line jsx-a11y/click-events-have-key-events -- the field above takes the keys
          <li
            key={`${command.name}/${command.hint}`}
            id={`palette-${i}`}
            role="option"
            aria-selected={i === index}
            onClick={() => run(command)}
            onPointerMove={() => setAt(i)}
          >
            <span>
              {command.name} <span className="quiet">{command.hint}</span>
            </span>
            {command.keys && <kbd>{command.keys}</kbd>}
          </li>
        ))}
      </ul>
      {nothing && (
        <p className="quiet" style={{ padding: "10px 14px" }}>
          {say("ui.nothingIsCalledThat")}
        </p>
      )}
    </Dialog>
  );
}
