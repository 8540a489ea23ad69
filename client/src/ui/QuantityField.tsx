import { useEffect, useId, useLayoutEffect, useRef, useState, type KeyboardEvent } from "react";
import { flushSync } from "react-dom";

import { Refused, type Schemas } from "../api/client";
import { sentence } from "./sentence";
import { held } from "../queue/held";
import { say } from "../texts/say";

interface Props {
  label: string;
  text: string;
  value: number;
  kind: Schemas["QuantityIn"]["kind"];
  system: "metric" | "imperial";
  low?: number | null | undefined;
  high?: number | null | undefined;
  step?: number;
  hideLabel?: boolean;
  focused?: boolean;
  exposure?: string;
  onValue: (value: number, text: string) => void;
  onLeave?: () => void;
}

/** A quantity as people write it. The server reads it; what it refuses stays here with what is allowed. */
export function QuantityField(props: Props) {
  const { label, text, value, kind, system, low, high, step = 0, onValue, onLeave } = props;
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const [refusal, setRefusal] = useState("");
  const [said, setSaid] = useState("");
  // what was read last and is on its way: shown until the page has it, or has something else
  const [sent, setSent] = useState<{ value: number; text: string; over: string } | null>(null);
  const shown = sent && sent.over === text && Math.abs(sent.value - value) < 1e-9 ? sent.text : text;

  // while the server reads, another field may change what this one's change is put on
  const latest = useRef(onValue);
  useEffect(() => {
    latest.current = onValue;
  }, [onValue]);

  // a figure that arrives while its field is in hand and nothing was pressed in it is chosen whole again:
  // what is typed next replaces it, and is not put behind it
  const field = useRef<HTMLInputElement>(null);
  const pressed = useRef(true);
  useLayoutEffect(() => {
    if (!pressed.current && field.current === document.activeElement) field.current?.select();
  }, [shown]);

  // one answer may overtake another: what was written last counts
  const askedLast = useRef(0);
  const readLast = useRef(0);
  const commit = async () => {
    if (typed === null || typed === shown) {
      setTyped(null);
      onLeave?.();
      return;
    }
    const turn = ++askedLast.current;
    try {
      const read = await held.read({
        text: typed,
        kind,
        system,
        low: low ?? null,
        high: high ?? null,
        exposure: props.exposure ?? null,
      });
      if (turn < readLast.current) return;
      readLast.current = turn;
      // at once: a form that waits for this reading sends what its page then holds
      flushSync(() => {
        if (turn === askedLast.current) setRefusal("");
        setSaid(read.said);
        setTyped((now) => (now === typed ? null : now)); // what is being typed meanwhile stays
        setSent({ value: read.value, text: read.text, over: text });
        latest.current(read.value, read.text);
      });
      onLeave?.();
    } catch (error) {
      if (turn !== askedLast.current) return;
      const problem = error instanceof Refused ? error.problems[0] : undefined;
      flushSync(() =>
        setRefusal(
          problem
            ? say("ui.cannotBeUsed", { label, typed, allowed: sentence(problem.allowed) })
            : say("ui.itCouldNotBeReadTry", { label }),
        ),
      );
    }
  };
  const onKeyDown = (event: KeyboardEvent) => {
    pressed.current = true;
    if (event.key === "Enter") void commit();
    if (event.key === "Escape") {
      setTyped(null);
      setRefusal("");
      onLeave?.();
    }
    const way = event.key === "ArrowUp" ? 1 : event.key === "ArrowDown" ? -1 : 0;
    if (way && step) {
      event.preventDefault();
      onValue(Math.min(Math.max(value + way * step, low ?? -Infinity), high ?? Infinity), text);
    }
  };
  return (
    <div className="field">
      <label htmlFor={id} hidden={props.hideLabel ?? false}>
        {label}
      </label>
      <input
        ref={field}
        id={id}
        className="input"
        aria-label={label}
        aria-invalid={refusal !== ""}
        aria-describedby={refusal ? `${id}-refusal` : undefined}
        value={typed ?? shown}
        // eslint-disable-next-line jsx-a11y/no-autofocus -- the field replaces the dimension that was pressed
        autoFocus={props.focused ?? false}
        inputMode="text"
        autoComplete="off"
        data-typing={typed !== null}
        onFocus={(event) => {
          pressed.current = false;
          event.target.select();
        }}
        onChange={(event) => {
          pressed.current = true;
          setTyped(event.target.value);
        }}
        onBlur={() => void commit()}
        onKeyDown={onKeyDown}
      />
      {said && !refusal && (
        <span role="status" className="quiet hint">
          {said}
        </span>
      )}
      {refusal && (
        <span id={`${id}-refusal`} role="alert" className="refusal">
          {refusal}
        </span>
      )}
    </div>
  );
}
