import Button from "@mui/material/Button";
import { useEffect, useState } from "react";
import { say } from "../../texts/say";

/** Read a text aloud, and stop. */
export function Aloud({ text }: { text: string }) {
  const [speaking, setSpeaking] = useState(false);
  useEffect(
    () => () => {
      if ("speechSynthesis" in window) window.speechSynthesis.cancel();
    },
    [text],
  );
  if (!("speechSynthesis" in window)) return null;
  const speak = () => {
    window.speechSynthesis.cancel();
    if (speaking) {
      setSpeaking(false);
      return;
    }
    const words = new SpeechSynthesisUtterance(text);
    words.onend = words.onerror = () => setSpeaking(false);
    setSpeaking(true);
    window.speechSynthesis.speak(words);
  };
  return <Button onClick={speak}>{speaking ? say("build.stopReading") : say("build.readAloud")}</Button>;
}
