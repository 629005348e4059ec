import { useEffect, useState } from "react";
import { LastSound } from "./lastSound";

/** What is heard of the room while it is wanted; `device` is a microphone, "" is any. */
export function useSound(wanted: boolean, device: string) {
  const [sound, setSound] = useState<LastSound | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    if (!wanted) return;
    let gone = false;
    let close: () => void = () => undefined;
    setTrouble(null);
    const lost = () => {
      setSound(null);
      setTrouble("The microphone was taken away.");
    };
    LastSound.open(device, lost)
      .then((opened) => {
        if (gone) opened.close();
        else {
          close = opened.close;
          setSound(opened);
        }
      })
      .catch((error: Error) => !gone && setTrouble(error.message));
    return () => {
      gone = true;
      setSound(null);
      setTrouble(null);
      close();
    };
  }, [wanted, device]);
  return { sound, trouble };
}
