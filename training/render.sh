#!/bin/sh
# Renders every MIDI file of a folder that has no sound yet: render.sh FOLDER
# Level, sample rate and players vary with the file's number, so that nothing learns any of them. Needs Debian's packages
# fluidsynth, fluid-soundfont-gm, timgm6mb-soundfont and musescore-general-soundfont-small.
for midi in "$1"/*.mid; do
  base=${midi%.mid}
  [ -f "$base.wav" ] && continue
  number=$(cksum "$midi" | cut -d' ' -f1)
  case $((number / 21 % 4)) in
  0) font=sf3/MuseScore_General_Lite.sf3 ;;
  1) font=sf2/TimGM6mb.sf2 ;;
  *) font=sf2/FluidR3_GM.sf2 ;;
  esac
  gain=$(awk "BEGIN { print 0.08 * 2.2 ^ ($number % 4) }")
  case $((number / 7 % 3)) in 0) rate=44100 ;; 1) rate=48000 ;; *) rate=32000 ;; esac
  fluidsynth -ni -q -g "$gain" -r "$rate" -F "$base.part.wav" "/usr/share/sounds/$font" "$midi" >/dev/null 2>&1
  mv "$base.part.wav" "$base.wav"
done
