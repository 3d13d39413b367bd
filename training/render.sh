#!/bin/sh
# Renders every MIDI file of a folder that has no sound yet: render.sh FOLDER [SOUNDFONT]
# Level and sample rate vary with the file's number, so that nothing learns either. Needs fluidsynth.
font=${2:-/usr/share/sounds/sf2/FluidR3_GM.sf2}
for midi in "$1"/*.mid; do
  base=${midi%.mid}
  [ -f "$base.wav" ] && continue
  number=$(cksum "$midi" | cut -d' ' -f1)
  gain=$(awk "BEGIN { print 0.08 * 2.2 ^ ($number % 4) }")
  case $((number / 7 % 3)) in 0) rate=44100 ;; 1) rate=48000 ;; *) rate=32000 ;; esac
  fluidsynth -ni -q -g "$gain" -r "$rate" -F "$base.part.wav" "$font" "$midi" >/dev/null 2>&1
  mv "$base.part.wav" "$base.wav"
done
