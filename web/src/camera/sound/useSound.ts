import { useEffect, useState } from "react";
import { LastSound } from "./lastSound";

/** What is heard beside a picture while it is wanted: a microphone, or the clip that is played for a camera. */
export function useSound(wanted: boolean, clip: HTMLVideoElement | null, device: string) {
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
    (clip ? LastSound.ofClip(clip) : LastSound.ofRoom(device, lost))
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
  }, [wanted, clip, device]);
  return { sound, trouble };
}
