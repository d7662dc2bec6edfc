/** What the device does besides showing: it ticks, hums, stays awake and reads aloud, where it can and she wants it. */
import { useEffect, useState } from "react";
import { preferences } from "./preferences";

let audio: AudioContext | null = null;

function beep(high: boolean): void {
  try {
    audio ??= new AudioContext();
    const tone = audio.createOscillator();
    const volume = audio.createGain();
    tone.frequency.value = high ? 880 : 520;
    volume.gain.setValueAtTime(0.12, audio.currentTime);
    volume.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + 0.18);
    tone.connect(volume).connect(audio.destination);
    tone.start();
    tone.stop(audio.currentTime + 0.2);
  } catch {
    // Without sound the count on the screen says it.
  }
}

/** Told that something was counted: a whole round, or a stitch. */
export function felt(round: boolean): void {
  const wanted = preferences();
  if (wanted.sound) beep(round);
  if (wanted.vibrate && "vibrate" in navigator) navigator.vibrate(round ? [40, 40, 40] : 15);
}

export const canSpeak = () => "speechSynthesis" in window;

export function readAloud(text: string): void {
  if (!canSpeak()) return;
  window.speechSynthesis.cancel();
  const said = new SpeechSynthesisUtterance(text);
  said.lang = "en";
  said.rate = 0.9;
  window.speechSynthesis.speak(said);
}

/** Keeps the screen on while the page is seen; a sentence where the device does not allow it. */
export function useAwake(wanted: boolean): string | null {
  const [why, setWhy] = useState<string | null>(null);
  useEffect(() => {
    if (!wanted) {
      setWhy(null);
      return;
    }
    if (!("wakeLock" in navigator)) {
      setWhy("This browser cannot keep the screen on: set it in the device's own settings.");
      return;
    }
    let lock: WakeLockSentinel | null = null;
    let over = false;
    const hold = async () => {
      if (document.visibilityState !== "visible") return;
      try {
        const got = await navigator.wakeLock.request("screen");
        if (over) void got.release();
        else lock = got;
        setWhy(null);
      } catch {
        setWhy("The device does not keep the screen on now, perhaps to save its battery.");
      }
    };
    const seen = () => void hold();
    void hold();
    document.addEventListener("visibilitychange", seen);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", seen);
      void lock?.release();
    };
  }, [wanted]);
  return why;
}

/** A round as it is read aloud. */
export function said(rung: { label: string; work: string; count: number; before?: string[] }): string {
  const label = rung.label.replace(/^R(\d)/, "Round $1");
  return [...(rung.before ?? []), `${label}: ${rung.work}.`, `${rung.count} stitches.`].join(" ");
}
