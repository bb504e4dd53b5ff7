// mounts-tmp.mts
import { readdirSync } from "node:fs";
import sharp8 from "sharp";
import { createCanvas as createCanvas2, GlobalFonts } from "@napi-rs/canvas";

// src/core/schema/schema.ts
var text = (most, least = 0) => ({ is: "text", least, most });
var number = (least, most) => ({ is: "number", least, most, whole: false });
var whole = (least, most) => ({ is: "number", least, most, whole: true });
var truth = { is: "truth" };
var oneOf = (values) => ({ is: "one-of", values });
var object = (parts) => ({ is: "object", parts });
var list = (of, most, least = 0) => ({ is: "list", of, least, most });
var maybe = (of) => ({ is: "maybe", of });
var orNull = (of) => ({ is: "or-null", of });
var later = (of) => ({ is: "later", of });
var checked = (of, fault) => ({
  is: "checked",
  of,
  fault
});
var either = (...choices) => ({ is: "either", choices });
var record = (keys2, values, most, least = 0) => ({
  is: "record",
  keys: keys2,
  values,
  least,
  most
});
var kinds = (of) => ({
  is: "kinds",
  by: "kind",
  kinds: of
});
var ID = {
  is: "text",
  least: 1,
  most: 40,
  like: { pattern: /^[\w-]{1,40}$/, says: "must be an id", samples: ["a", "b", "c"] }
};
var HASH = {
  is: "text",
  least: 64,
  most: 64,
  like: {
    pattern: /^[0-9a-f]{64}$/,
    says: "must be a hash of 64 hexadecimal digits",
    samples: ["a".repeat(64), "b".repeat(64), "7".repeat(64)]
  }
};
var COLOUR = {
  is: "text",
  least: 7,
  most: 7,
  like: { pattern: /^#[0-9a-f]{6}$/i, says: "must read #rrggbb", samples: ["#102030", "#FFFFFF"] }
};
var SVG_PATH = {
  is: "text",
  least: 1,
  most: 2e4,
  like: {
    pattern: /^[MmLlHhVvCcSsQqTtAaZz0-9eE\s,.+-]*$/,
    says: "must be SVG path data",
    samples: ["M0 0L100 0L50 100Z"]
  }
};
var DECIBELS = number(-100, 24);

// src/core/show/limits.ts
var MOST_SLIDES = 1e4;
var MOST_LAYERS = 500;
var MOST_KEYS = 1e3;
var MOST_CUES = 200;
var MOST_SOUNDS_OF_A_SLIDE = 50;
var MOST_SHAPES = 20;
var MOST_MARKS = 5e4;
var MOST_FOCUSED = 2e4;
var MOST_BEATS_SAID = 2e3;
var MOST_LEVEL_POINTS = 500;
var MOST_CAMERAS = 100;
var SHORTEST_SLIDE_MS = 200;
var LONGEST_SLIDE_MS = 24 * 60 * 60 * 1e3;
var LONGEST_SHOW_MS = 3 * 24 * 60 * 60 * 1e3;
var LONGEST_FILM_MS = 12 * 60 * 60 * 1e3;
var LONGEST_TRANSITION_MS = 6e4;
var LONGEST_SHOW_TITLE = 300;
var LONGEST_NAME = 200;
var LONGEST_WORDS_TITLE = 2e3;
var LONGEST_WORDS_SUBTITLE = 1e4;
var LONGEST_SCRIPT = 2e4;
var MOST_LANGUAGES = 12;
var MOST_CAPTIONS = 2e3;
var LONGEST_CAPTION = 500;
var LONGEST_BREATH_MS = 3e4;
var SMALLEST_FRAME_PX = 16;
var LARGEST_FRAME_PX = 7680;
var MOST_LEFT_AS_THEY_ARE = 5e3;
var LONGEST_REASON = 300;
var MOST_LICENCES = 2e4;
var MOST_EDITS_TOGETHER = 1e4;

// src/core/show/words.ts
var WORDS_PLACES = [
  "top-left",
  "top",
  "top-right",
  "left",
  "centre",
  "right",
  "bottom-left",
  "bottom",
  "bottom-right"
];
function anchorOf(place) {
  const across = place.endsWith("left") ? 0 : place.endsWith("right") ? 1 : 0.5;
  return [across, place.startsWith("top") ? 0 : place.startsWith("bottom") ? 1 : 0.5];
}
var FONT_NAMES = [
  "bricolage",
  "instrument",
  "outfit",
  "space-grotesk",
  "josefin",
  "quicksand",
  "oswald",
  "fraunces",
  "playfair",
  "bodoni",
  "vollkorn",
  "cinzel",
  "caveat",
  "dancing-script",
  "spline-mono"
];
var WORDS_WAYS = ["none", "fade", "rise", "type", "wipe", "blur"];
var WORDS_UNITS = ["all", "line", "word", "letter"];

// src/core/show/caption.ts
var USUAL_CAPTION_LOOK = {
  font: "instrument",
  size: 0.048,
  colour: "#ffffff",
  box: 0.6,
  place: "bottom"
};
var USUAL_LANGUAGE = "en";
var LANGUAGE = {
  is: "text",
  least: 2,
  most: 35,
  like: {
    pattern: /^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/,
    says: "must be a language tag, as en or pt-BR",
    samples: ["en", "de", "pt-BR"]
  }
};
var CAPTIONS = list(
  object({
    fromMs: whole(0, LONGEST_SLIDE_MS),
    toMs: whole(1, LONGEST_SLIDE_MS),
    text: text(LONGEST_CAPTION, 1)
  }),
  MOST_CAPTIONS
);
var CAPTIONS_BY_LANGUAGE = record(LANGUAGE, CAPTIONS, MOST_LANGUAGES, 1);
var CAPTION_LOOK = object({
  font: maybe(oneOf(FONT_NAMES)),
  size: maybe(number(0.02, 0.12)),
  colour: maybe(COLOUR),
  box: maybe(number(0, 1)),
  place: maybe(oneOf(["top", "bottom"])),
  language: maybe(LANGUAGE)
});

// src/core/show/placed-sound.ts
var FADE_CURVES = ["straight", "gentle", "equal"];
var SOUND_KINDS = ["song", "effect", "voice"];
function voiceOf({ sounds }) {
  return sounds.find((sound) => sound.kind === "voice" && !sound.resting) ?? null;
}
function offsetHereMs({ starts }) {
  return starts.at === "here" ? starts.offsetMs : 0;
}

// src/core/sound/sound-length.ts
function soundLengthMs(facts2) {
  return facts2 && facts2.kind !== "picture" ? facts2.lengthMs : 0;
}

// src/core/sound/song-runs.ts
function onceThroughMs(sound, facts2) {
  return Math.max(0, endInFileMs(sound, facts2) - sound.trimStartMs);
}
function endInFileMs(sound, facts2) {
  return Math.min(sound.trimEndMs ?? Infinity, soundLengthMs(facts2.get(sound.assetId)));
}

// src/core/timing/frames.ts
function momentOfFrame(frameIndex, rate) {
  assertRate(rate);
  return frameIndex * 1e3 * rate.seconds / rate.frames;
}
function frameAtMoment(momentMs, rate) {
  assertRate(rate);
  return Math.floor(momentMs * rate.frames / (1e3 * rate.seconds) + 1e-4);
}
function frameSeen(momentMs, rate) {
  assertRate(rate);
  return Math.max(0, Math.ceil(momentMs * rate.frames / (1e3 * rate.seconds) - 1e-4));
}
function momentSeen(momentMs, rate) {
  return momentOfFrame(frameSeen(momentMs, rate), rate);
}
function assertRate({ frames, seconds }) {
  if (!(frames > 0 && seconds > 0))
    throw new RangeError(`a frame rate must be more than 0, got ${frames} in ${seconds} s`);
}

// src/core/timing/slide-span.ts
function slideSpans(slides) {
  const transitions = slides.map((slide3, index) => transitionLengthMs(slide3, slides[index - 1]));
  let startMs = 0;
  return slides.map((slide3, slideIndex) => {
    const endMs = startMs + slide3.lengthMs;
    const span = {
      slideId: slide3.id,
      slideIndex,
      startMs,
      endMs,
      transitionMs: transitions[slideIndex],
      leavesMs: endMs + (transitions[slideIndex + 1] ?? 0)
    };
    startMs = endMs;
    return span;
  });
}
function transitionLengthMs(slide3, before) {
  if (!before || slide3.transition.kind === "cut") return 0;
  return Math.min(slide3.transition.lengthMs, Math.floor(slide3.lengthMs / 2), Math.floor(before.lengthMs / 2));
}
function showLengthMs(show) {
  return show.slides.reduce((sum, slide3) => sum + slide3.lengthMs, 0);
}
function slideIndexAt(spans, momentMs) {
  if (spans.length === 0) return null;
  let low = 0;
  let high = spans.length - 1;
  while (low < high) {
    const middle = low + high + 1 >> 1;
    if (spans[middle].startMs <= momentMs) low = middle;
    else high = middle - 1;
  }
  return low;
}

// src/core/captions/sentences.ts
var ABBREVIATION = /(?:^|[\s(“"'])(?:Dr|Mr|Mrs|Ms|St|No|Nr|vs|etc|e\.g|i\.e|z\.B|bzw|ca|Prof|Sr|Jr|\p{Lu})\.\s*$/u;
var splitters = /* @__PURE__ */ new Map();
function sentencesOf(script, language = "en") {
  return script.split(/\r?\n/).flatMap((line) => {
    const sentences = [];
    let open2 = "";
    for (const { segment } of splitterFor(language).segment(line)) {
      open2 += segment;
      if (ABBREVIATION.test(open2)) continue;
      sentences.push(open2);
      open2 = "";
    }
    sentences.push(open2);
    return sentences.map((sentence) => sentence.trim()).filter((sentence) => /[\p{L}\p{N}]/u.test(sentence));
  });
}
function splitterFor(language) {
  const known = splitters.get(language);
  if (known) return known;
  const made2 = new Intl.Segmenter(language, { granularity: "sentence" });
  splitters.set(language, made2);
  return made2;
}
var SIGN = 2.6;
var DIGIT = 3.6;
function lettersToSay(text2) {
  const signs = text2.match(/[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}]/gu)?.length ?? 0;
  const digits = text2.match(/\p{N}/gu)?.length ?? 0;
  const letters = (text2.match(/\p{L}/gu)?.length ?? 0) - signs;
  const words2 = text2.match(/[\p{L}\p{N}]+/gu)?.length ?? 0;
  return Math.max(1, letters + SIGN * signs + DIGIT * digits + 0.6 * words2);
}

// src/core/captions/align.ts
var SPREAD = 0.16;
var SPREAD_MS = 160;
var LONG_PAUSE_MS = 420;
var PAUSE_WORTH = 5;
var WITHOUT_PAUSE_COSTS = 7;
var GRID_MS = 200;
var FAR = 0.25;
var FAR_MS = 4e3;
function sentenceTimes(sentences, phrases) {
  if (sentences.length === 0 || phrases.length === 0) return null;
  const letters = sentences.map(lettersToSay);
  const places2 = endPlaces(phrases);
  const saidMs = places2.at(-1).saidMs;
  const msALetter = saidMs / letters.reduce((sum, count) => sum + count, 0);
  const ends = bestEnds(
    letters.map((count) => count * msALetter),
    places2,
    saidMs
  );
  return ends.map((end, index) => ({
    fromMs: index === 0 ? phrases[0].fromMs : places2[ends[index - 1]].startMs,
    toMs: places2[end].endMs
  }));
}
function endPlaces(phrases) {
  const places2 = [];
  let saidMs = 0;
  phrases.forEach((phrase, index) => {
    const lengthMs = phrase.toMs - phrase.fromMs;
    for (let into = GRID_MS; into < lengthMs - GRID_MS / 2; into += GRID_MS) {
      const atMs = phrase.fromMs + into;
      places2.push({ saidMs: saidMs + into, endMs: atMs, startMs: atMs, worth: -WITHOUT_PAUSE_COSTS });
    }
    saidMs += lengthMs;
    const next = phrases[index + 1];
    const pauseMs = next ? next.fromMs - phrase.toMs : LONG_PAUSE_MS;
    places2.push({
      saidMs,
      endMs: phrase.toMs,
      startMs: next?.fromMs ?? phrase.toMs,
      worth: pauseWorth(pauseMs)
    });
  });
  return places2;
}
function pauseWorth(pauseMs) {
  return PAUSE_WORTH * Math.min(1.4, pauseMs / LONG_PAUSE_MS);
}
function lengthCost(saidMs, expectedMs) {
  const off = (saidMs - expectedMs) / (SPREAD * expectedMs + SPREAD_MS);
  return 0.5 * off * off;
}
function bestEnds(expected, places2, saidMs) {
  const count = places2.length;
  const farMs = Math.max(FAR_MS, FAR * saidMs);
  let costs = new Float64Array(count).fill(Infinity);
  const cameFrom = [];
  let untilMs = 0;
  expected.forEach((lengthMs, sentence) => {
    untilMs += lengthMs;
    const next = new Float64Array(count).fill(Infinity);
    const from = new Int32Array(count).fill(-1);
    const isLast = sentence === expected.length - 1;
    for (let end = isLast ? count - 1 : 0; end < count; end += 1) {
      const place = places2[end];
      if (!isLast && Math.abs(place.saidMs - untilMs) > farMs) continue;
      if (sentence === 0) {
        next[end] = lengthCost(place.saidMs, lengthMs) - place.worth;
        continue;
      }
      for (let start2 = end - 1; start2 >= 0; start2 -= 1) {
        const ownMs = place.saidMs - places2[start2].saidMs;
        if (ownMs > 3 * lengthMs + 3e3 && !isLast) break;
        const cost = costs[start2] + lengthCost(ownMs, lengthMs) - place.worth;
        if (cost < next[end]) {
          next[end] = cost;
          from[end] = start2;
        }
      }
    }
    costs = next;
    cameFrom.push(from);
  });
  if (!Number.isFinite(costs[count - 1])) return inProportion(expected, places2, saidMs);
  const ends = [];
  for (let [sentence, end] = [expected.length - 1, count - 1]; sentence >= 0; sentence -= 1) {
    ends.unshift(end);
    end = cameFrom[sentence][end];
  }
  return ends;
}
function inProportion(expected, places2, saidMs) {
  let untilMs = 0;
  return expected.map((lengthMs) => {
    untilMs += lengthMs;
    const at3 = places2.findIndex((place) => place.saidMs >= Math.min(saidMs, untilMs) - 1);
    return at3 < 0 ? places2.length - 1 : at3;
  });
}

// src/core/captions/caption-lines.ts
var CAPTION_LIMITS = {
  lettersALine: 42,
  lines: 2,
  lettersASecond: 17,
  leastMs: 1e3,
  mostMs: 7e3,
  gapMs: 84
};
var AFTER = /[,;:.!?…–—]["”’)]?$/u;
var BEFORE = /^(?:and|but|or|who|which|that|when|while|because|where|as|und|aber|oder|der|die|das|weil|wenn|als|et|mais|ou|qui|que|y|pero|o|e|ma)$/iu;
function inLines(text2, most = CAPTION_LIMITS.lettersALine) {
  const words2 = text2.split(/\s+/).filter((word) => word !== "");
  if (words2.join(" ").length <= most) return words2.length > 0 ? [words2.join(" ")] : [];
  const count = Math.ceil(words2.join(" ").length / most);
  for (let lines2 = count; ; lines2 += 1) {
    const broken = bestBreak(words2, lines2, most);
    if (broken) return broken;
    if (lines2 >= words2.length) return words2;
  }
}
function bestBreak(words2, lines2, most) {
  const even2 = words2.join(" ").length / lines2;
  const known = /* @__PURE__ */ new Map();
  const from = (start2, left) => {
    if (left === 0) return start2 === words2.length ? { cost: 0, lines: [] } : null;
    const key2 = `${start2} ${left}`;
    if (known.has(key2)) return known.get(key2);
    let best2 = null;
    for (let end = start2 + 1; end <= words2.length; end += 1) {
      const line = words2.slice(start2, end).join(" ");
      if (line.length > most && end > start2 + 1) break;
      const rest = from(end, left - 1);
      if (!rest) continue;
      const cost = rest.cost + ((line.length - even2) / most) ** 2 - (end < words2.length ? breakWorth(words2, end) : 0);
      if (!best2 || cost < best2.cost) best2 = { cost, lines: [line, ...rest.lines] };
    }
    known.set(key2, best2);
    return best2;
  };
  return from(0, lines2)?.lines ?? null;
}
function breakWorth(words2, at3) {
  if (AFTER.test(words2[at3 - 1])) return 0.08;
  return BEFORE.test(words2[at3]) ? 0.03 : 0;
}
function inCaptions(sentence, least = 1) {
  const lines2 = inLines(sentence);
  if (lines2.length <= CAPTION_LIMITS.lines && least <= 1) return lines2.length > 0 ? [lines2.join("\n")] : [];
  const words2 = sentence.split(/\s+/).filter((word) => word !== "");
  const most = Math.min(
    CAPTION_LIMITS.lettersALine * CAPTION_LIMITS.lines - 6,
    Math.ceil(words2.join(" ").length / least) + 6
  );
  return inLines(words2.join(" "), most).flatMap((piece) => {
    const own = inLines(piece);
    return own.length <= CAPTION_LIMITS.lines ? [own.join("\n")] : [own.slice(0, CAPTION_LIMITS.lines).join("\n"), own.slice(CAPTION_LIMITS.lines).join("\n")];
  });
}
function timeToRead(text2) {
  const letters = text2.replace(/\s+/g, " ").trim().length;
  return Math.max(CAPTION_LIMITS.leastMs, Math.ceil(letters * 1e3 / CAPTION_LIMITS.lettersASecond));
}

// src/core/captions/show-captions.ts
function captionsOfShow(show, facts2, language) {
  const spans = slideSpans(show.slides);
  const all = show.slides.flatMap((slide3, index) => {
    const captions = captionsOfSlide(show, slide3, facts2, language);
    const seenMs = momentSeen(spans[index].startMs, show.frame.rate);
    return captions.map((caption, at3) => ({
      slideId: slide3.id,
      index: at3,
      startMs: seenMs + caption.fromMs,
      endMs: seenMs + caption.toMs,
      text: caption.text
    }));
  });
  const lengthMs = showLengthMs(show);
  const sorted2 = all.filter(({ startMs }) => startMs < lengthMs).toSorted((a, b) => a.startMs - b.startMs);
  return sorted2.map((caption, index) => ({
    ...caption,
    endMs: Math.min(caption.endMs, sorted2[index + 1]?.startMs ?? lengthMs)
  }));
}
function captionsOfSlide(show, slide3, facts2, language) {
  const byHand = slide3.captions && Object.hasOwn(slide3.captions, language) ? slide3.captions[language] : void 0;
  if (byHand) return byHand;
  return language === (show.language ?? USUAL_LANGUAGE) ? foundCaptions(slide3, facts2, language) : [];
}
var worked = /* @__PURE__ */ new WeakMap();
function foundCaptions(slide3, facts2, language) {
  const voice = voiceOf(slide3);
  if (!voice || !slide3.script) return [];
  const known = facts2.get(voice.assetId);
  const before = worked.get(voice);
  if (before && before.script === slide3.script && before.known === known) return before.captions;
  const captions = timedCaptions(sentencesOf(slide3.script, language), spokenPhrases(voice, facts2));
  worked.set(voice, { script: slide3.script, known, captions });
  return captions;
}
function spokenPhrases(voice, facts2) {
  const known = facts2.get(voice.assetId);
  const lengthMs = onceThroughMs(voice, facts2);
  const heard = known && known.kind === "sound" ? known.listening?.phrases : void 0;
  const phrases = heard ?? [{ fromMs: voice.trimStartMs, toMs: voice.trimStartMs + lengthMs }];
  const shiftMs = offsetHereMs(voice) - voice.trimStartMs;
  return phrases.flatMap(({ fromMs, toMs }) => {
    const from = Math.max(fromMs, voice.trimStartMs);
    const to = Math.min(toMs, voice.trimStartMs + lengthMs);
    return to - from > 0 ? [{ fromMs: from + shiftMs, toMs: to + shiftMs }] : [];
  });
}
function timedCaptions(sentences, phrases) {
  const times = sentenceTimes(sentences, phrases);
  if (!times) return [];
  const pieces = sentences.flatMap((sentence, index) => {
    const { fromMs, toMs } = times[index];
    const texts = inCaptions(sentence, Math.ceil((toMs - fromMs) / CAPTION_LIMITS.mostMs));
    const letters = texts.map(lettersToSay);
    const all = letters.reduce((sum, count) => sum + count, 0);
    let said = 0;
    return texts.map((text2, piece) => {
      const from = fromMs + (toMs - fromMs) * said / all;
      said += letters[piece];
      return { fromMs: Math.round(from), toMs: Math.round(fromMs + (toMs - fromMs) * said / all), text: text2 };
    });
  });
  return pieces.flatMap((piece, index) => {
    const next = pieces[index + 1];
    const latest = next ? next.fromMs - CAPTION_LIMITS.gapMs : Infinity;
    const wanted = Math.max(piece.toMs, piece.fromMs + timeToRead(piece.text));
    const toMs = Math.max(Math.min(wanted, latest), Math.min(piece.toMs, next?.fromMs ?? piece.toMs));
    return toMs > piece.fromMs ? [{ ...piece, fromMs: Math.max(0, piece.fromMs), toMs }] : [];
  });
}

// src/core/motion/crop.ts
var SLACK = 1e-6;
function cropOn(picture2, crop) {
  return liesInside(crop, picture2) ? crop : heldInside(crop, picture2);
}
function croppedSize(picture2, given) {
  if (!given) return { widthPx: picture2.widthPx, heightPx: picture2.heightPx };
  const crop = cropOn(picture2, given);
  return {
    widthPx: Math.max(1, Math.round(crop.width * picture2.widthPx)),
    heightPx: Math.max(1, Math.round(crop.height * picture2.heightPx))
  };
}
function factsInUse(layer, facts2) {
  if (layer.kind !== "picture" || !layer.crop || facts2?.kind !== "picture") return facts2;
  return { ...facts2, ...croppedSize(facts2, layer.crop) };
}
function reach(size, turnDegrees) {
  const radians = turnDegrees * Math.PI / 180;
  const [cos, sin2] = [Math.abs(Math.cos(radians)), Math.abs(Math.sin(radians))];
  return [(cos * size.widthPx + sin2 * size.heightPx) / 2, (sin2 * size.widthPx + cos * size.heightPx) / 2];
}
function turned(x, y, turnDegrees) {
  const radians = turnDegrees * Math.PI / 180;
  const [cos, sin2] = [Math.cos(radians), Math.sin(radians)];
  return [cos * x - sin2 * y, sin2 * x + cos * y];
}
function liesInside(framing, picture2) {
  const [across, down] = reach(
    { widthPx: framing.width * picture2.widthPx, heightPx: framing.height * picture2.heightPx },
    framing.turnDegrees
  );
  const [x, y] = [framing.x * picture2.widthPx, framing.y * picture2.heightPx];
  const [slackX, slackY] = [SLACK * picture2.widthPx, SLACK * picture2.heightPx];
  return x - across >= -slackX && x + across <= picture2.widthPx + slackX && y - down >= -slackY && y + down <= picture2.heightPx + slackY;
}
function heldInside(framing, picture2) {
  const [across, down] = reach(
    { widthPx: framing.width * picture2.widthPx, heightPx: framing.height * picture2.heightPx },
    framing.turnDegrees
  );
  const scale = Math.min(1, picture2.widthPx / (2 * across), picture2.heightPx / (2 * down));
  const hold = (centre2, half) => Math.min(1 - half, Math.max(half, centre2));
  return {
    ...framing,
    width: framing.width * scale,
    height: framing.height * scale,
    x: hold(framing.x, scale * across / picture2.widthPx),
    y: hold(framing.y, scale * down / picture2.heightPx)
  };
}
function partsOfTurn(turnDegrees) {
  const quarter = 90 * Math.round(turnDegrees / 90);
  return { quarter, straighten: turnDegrees - quarter };
}
function placeOnCrop(crop, place, picture2) {
  const [x, y] = turned((place.x - crop.x) * picture2.widthPx, (place.y - crop.y) * picture2.heightPx, -crop.turnDegrees);
  return { x: 0.5 + x / (crop.width * picture2.widthPx), y: 0.5 + y / (crop.height * picture2.heightPx) };
}

// src/core/motion/framing.ts
function fillFraming(pictureAspect, frameAspect) {
  return pictureAspect >= frameAspect ? { x: 0.5, y: 0.5, width: frameAspect / pictureAspect, height: 1, turnDegrees: 0 } : { x: 0.5, y: 0.5, width: 1, height: pictureAspect / frameAspect, turnDegrees: 0 };
}
function fitFraming(pictureAspect, frameAspect) {
  return pictureAspect >= frameAspect ? { x: 0.5, y: 0.5, width: 1, height: pictureAspect / frameAspect, turnDegrees: 0 } : { x: 0.5, y: 0.5, width: frameAspect / pictureAspect, height: 1, turnDegrees: 0 };
}
function scaled(framing, factor) {
  return { ...framing, width: framing.width * factor, height: framing.height * factor };
}
function betweenFramings(first, last, progress) {
  const mix = (from, to, share) => from + (to - from) * share;
  const width = first.width * (last.width / first.width) ** progress;
  const height = first.height * (last.height / first.height) ** progress;
  const across = shareOfWay(first.width, last.width, width, progress);
  const down = shareOfWay(first.height, last.height, height, progress);
  return {
    x: mix(first.x, last.x, across),
    y: mix(first.y, last.y, down),
    width,
    height,
    turnDegrees: mix(first.turnDegrees, last.turnDegrees, progress)
  };
}
function shareOfWay(from, to, at3, progress) {
  return Math.abs(to - from) < 1e-6 * from ? progress : (at3 - from) / (to - from);
}

// src/core/unreachable.ts
function unreachable(value) {
  throw new TypeError(`every kind must be handled, got ${JSON.stringify(value)}`);
}

// src/core/keys/easing.ts
import { easeBackOut, easeBounceOut, easeExpInOut } from "d3-ease";
var EASING_NAMES = [
  "linear",
  "hold",
  "settle",
  "set-off",
  "arrive",
  "swing",
  "bounce",
  "rush"
];
function cubicBezier(x1, y1, x2, y2) {
  if (!(x1 >= 0 && x1 <= 1 && x2 >= 0 && x2 <= 1))
    throw new RangeError(`x1 and x2 must lie within 0\u20261, got ${x1} and ${x2}`);
  return (progress) => {
    if (progress <= 0) return 0;
    if (progress >= 1) return 1;
    return bezier(y1, y2, solveForX(x1, x2, progress));
  };
}
var settle = cubicBezier(0.4, 0, 0.6, 1);
var linear = (progress) => Math.min(1, Math.max(0, progress));
var CURVES = {
  linear,
  hold: (progress) => progress >= 1 ? 1 : 0,
  settle,
  "set-off": cubicBezier(0.5, 0, 0.9, 0.6),
  arrive: cubicBezier(0.1, 0.4, 0.5, 1),
  // Goes a little past its goal and comes back; within 0…1 in time, up to 1.1 in value.
  swing: (progress) => easeBackOut(linear(progress)),
  bounce: (progress) => easeBounceOut(linear(progress)),
  rush: (progress) => easeExpInOut(linear(progress))
};
function curveOf(easing) {
  if (typeof easing === "string") return CURVES[easing];
  if ("bezier" in easing) return cubicBezier(...easing.bezier);
  const { from, to } = easing;
  const whole2 = curveOf(easing.of);
  const [first, last] = [whole2(from), whole2(to)];
  if (first === last) return linear;
  return (progress) => {
    if (progress <= 0) return 0;
    return progress >= 1 ? 1 : (whole2(from + (to - from) * progress) - first) / (last - first);
  };
}
function bezier(a, b, t) {
  return ((1 - 3 * b + 3 * a) * t + (3 * b - 6 * a)) * t * t + 3 * a * t;
}
function solveForX(x1, x2, x) {
  let low = 0;
  let high = 1;
  for (let step2 = 0; step2 < 60; step2 += 1) {
    const middle = (low + high) / 2;
    if (bezier(x1, x2, middle) < x) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

// src/core/keys/smooth.ts
function smoothValue(keys2, times, from, eased) {
  const [a, b] = [keys2[from].value, keys2[from + 1].value];
  const lengthS = (times[from + 1] - times[from]) / 1e3;
  const out2 = slopesAt(keys2, times, from).out * lengthS;
  const into = slopesAt(keys2, times, from + 1).in * lengthS;
  return hermite(a, b, out2, into, eased);
}
var STEEPEST = 1e9;
function slopesAt(keys2, times, index) {
  const said = keys2[index].slopes;
  if (said) return said;
  const slope = worked2(keys2, times, index);
  return { in: slope, out: slope };
}
function hermite(a, b, out2, into, t) {
  const [t2, t3] = [t * t, t * t * t];
  return (2 * t3 - 3 * t2 + 1) * a + (t3 - 2 * t2 + t) * out2 + (3 * t2 - 2 * t3) * b + (t3 - t2) * into;
}
function worked2(keys2, times, index) {
  if (index === 0 || index === keys2.length - 1) return 0;
  const before = (times[index] - times[index - 1]) / 1e3;
  const after = (times[index + 1] - times[index]) / 1e3;
  if (!(before > 0 && after > 0)) return 0;
  const left = (keys2[index].value - keys2[index - 1].value) / before;
  const right2 = (keys2[index + 1].value - keys2[index].value) / after;
  if (left === 0 || right2 === 0) return 0;
  return (left * after + right2 * before) / (before + after);
}

// src/core/keys/channel.ts
function valueAt(channel2, offsetMs, seenMs) {
  if (typeof channel2 === "number") return channel2;
  const { keys: keys2, still } = channel2;
  if (still !== void 0) return still;
  const times = keyTimes(keys2, seenMs);
  const { from, to, progress } = between(keys2, times, offsetMs);
  if (to === null) return keys2[from].value;
  const eased = curveOf(keys2[from].easing ?? "settle")(progress);
  if (channel2.smooth) return smoothValue(keys2, times, from, eased);
  return keys2[from].value + (keys2[to].value - keys2[from].value) * eased;
}
function between(keys2, times, offsetMs) {
  if (keys2.length === 0) throw new RangeError("a keyed channel needs at least one key, got none");
  let index = -1;
  while (index + 1 < keys2.length && times[index + 1] <= offsetMs) index += 1;
  if (index < 0) return { from: 0, to: null, progress: 0 };
  if (index + 1 >= keys2.length) return { from: index, to: null, progress: 0 };
  const progress = (offsetMs - times[index]) / (times[index + 1] - times[index]);
  return { from: index, to: index + 1, progress };
}
function keyTimes(keys2, seenMs) {
  let latest = 0;
  return keys2.map((key2) => {
    latest = Math.max(latest, keyTimeMs(key2.at, seenMs));
    return latest;
  });
}
function keyTimeMs(at3, seenMs) {
  if (at3.tied === "start") return at3.ms;
  return at3.tied === "end" ? seenMs - at3.ms : at3.share * seenMs;
}

// src/core/show/layer.ts
var BLEND_MODES = [
  "normal",
  "multiply",
  "screen",
  "overlay",
  "soft-light",
  "lighten",
  "darken",
  "add"
];
var BOX_SIDES = ["front", "back", "left", "right", "top", "bottom"];
var MOVE_EASINGS = ["settle", "set-off", "arrive", "linear"];
function isLit(layer) {
  return layer.kind === "picture" || layer.kind === "clip" || layer.kind === "drawing";
}
function* everyLayer(layers) {
  for (const layer of layers) {
    yield layer;
    if (layer.kind === "group") yield* everyLayer(layer.layers);
  }
}

// src/core/focus/box.ts
var right = (box2) => box2.left + box2.width;
var bottom = (box2) => box2.top + box2.height;
var area = (box2) => box2.width * box2.height;
var centre = (box2) => ({ x: box2.left + box2.width / 2, y: box2.top + box2.height / 2 });
function around(boxes) {
  if (boxes.length === 0) throw new RangeError("a box around nothing");
  const left = Math.min(...boxes.map((box2) => box2.left));
  const top = Math.min(...boxes.map((box2) => box2.top));
  return {
    left,
    top,
    width: Math.max(...boxes.map(right)) - left,
    height: Math.max(...boxes.map(bottom)) - top
  };
}
function shared(a, b) {
  const left = Math.max(a.left, b.left);
  const top = Math.max(a.top, b.top);
  const width = Math.min(right(a), right(b)) - left;
  const height = Math.min(bottom(a), bottom(b)) - top;
  return width > 0 && height > 0 ? { left, top, width, height } : null;
}
function shareWithin(box2, within2) {
  const both = shared(box2, within2);
  return both ? area(both) / area(box2) : 0;
}
function likeness(a, b) {
  const both = shared(a, b);
  return both ? area(both) / (area(a) + area(b) - area(both)) : 0;
}
function onPicture(box2) {
  return shared(box2, { left: 0, top: 0, width: 1, height: 1 }) ?? { left: 0, top: 0, width: 0, height: 0 };
}

// src/core/focus/focus-of.ts
var ABOVE = 0.45;
var BESIDE = 0.18;
var BELOW = 0.2;
var LEAST_OF_LARGEST = 0.28;
var MOST_OF_PICTURE = 0.85;
var LEAST_OF_PICTURE = 0.012;
function wholeFace(face) {
  return onPicture({
    left: face.left - BESIDE * face.width,
    top: face.top - ABOVE * face.height,
    width: face.width * (1 + 2 * BESIDE),
    height: face.height * (1 + ABOVE + BELOW)
  });
}
function focusOf(facts2, rings, widthOverHeight) {
  const whole2 = (facts2?.faces ?? []).map(wholeFace);
  if (rings) {
    if (rings.length === 0) return null;
    return { about: around(rings.map((ring2) => boxOfRing(ring2, widthOverHeight))), whole: whole2, from: "person" };
  }
  if (!facts2) return null;
  const faces = mainFaces(facts2.faces);
  if (faces.length > 0) return { about: around(faces.map(wholeFace)), whole: whole2, from: "faces" };
  const subjects = facts2.subjects.filter(
    (subject) => area(subject) < MOST_OF_PICTURE && area(subject) > LEAST_OF_PICTURE
  );
  if (subjects.length > 0) {
    const largest = Math.max(...subjects.map(area));
    const main = subjects.filter((subject) => area(subject) > 0.25 * largest);
    return { about: onPicture(around(main)), whole: whole2, from: "subjects" };
  }
  return facts2.salient && area(facts2.salient) < MOST_OF_PICTURE ? { about: facts2.salient, whole: whole2, from: "colours" } : null;
}
function mainFaces(faces) {
  const largest = Math.max(0, ...faces.map((face) => face.height));
  return faces.filter((face) => face.height >= LEAST_OF_LARGEST * largest);
}
function boxOfRing({ x, y, radius }, widthOverHeight) {
  const down = radius * widthOverHeight;
  return onPicture({ left: x - radius, top: y - down, width: 2 * radius, height: 2 * down });
}
function cutCount(whole2, window) {
  return whole2.filter((box2) => {
    const share = shareWithin(box2, window);
    return share > 1e-6 && share < 1 - 1e-6;
  }).length;
}

// src/core/focus/focus-in-use.ts
var PICTURE = { left: 0, top: 0, width: 1, height: 1 };
var LEAST_LEFT = 0.5;
function focusInUse(layer, facts2, rings) {
  const focus = focusOf(facts2.focus, rings, facts2.widthPx / facts2.heightPx);
  if (!focus || !layer.crop) return focus;
  const crop = cropOn(facts2, layer.crop);
  const moved2 = (box2) => around(
    [
      [box2.left, box2.top],
      [box2.left + box2.width, box2.top],
      [box2.left, box2.top + box2.height],
      [box2.left + box2.width, box2.top + box2.height]
    ].map(([x, y]) => {
      const place = placeOnCrop(crop, { x, y }, facts2);
      return { left: place.x, top: place.y, width: 0, height: 0 };
    })
  );
  const about = moved2(focus.about);
  if (shareWithin(about, PICTURE) < LEAST_LEFT) return null;
  return {
    ...focus,
    about: onPicture(about),
    whole: focus.whole.map(moved2).filter((box2) => shareWithin(box2, PICTURE) >= LEAST_LEFT).map(onPicture)
  };
}

// src/core/focus/reframe.ts
var ABOVE_CENTRE = 0.06;
var USUAL = { x: 0.5, y: 0.44 };
function windowOf({ x, y, width, height }) {
  return { left: x - width / 2, top: y - height / 2, width, height };
}
function roomOnPicture(size) {
  return size >= 1 ? { least: 0.5, most: 0.5 } : { least: size / 2, most: 1 - size / 2 };
}
function roomFor(focus, size) {
  if (!focus) return roomHolding([], size);
  return roomHolding([...focus.whole, focus.about], size) ?? roomHolding(focus.whole, size);
}
function roomHolding(boxes, size) {
  const across = roomAlong(boxes, size.width, (box2) => box2.left, right);
  const down = roomAlong(boxes, size.height, (box2) => box2.top, bottom);
  return across && down ? { across, down } : null;
}
function roomAlong(boxes, size, from, to) {
  const room = roomOnPicture(size);
  const least = Math.max(room.least, ...boxes.map((box2) => to(box2) - size / 2));
  const most = Math.min(room.most, ...boxes.map((box2) => from(box2) + size / 2));
  const slack = 1e-9;
  return least <= most + slack ? { least: Math.min(least, most), most } : null;
}
var within = ({ least, most }, value) => Math.min(most, Math.max(least, value));
function framed(size, focus) {
  const room = roomFor(focus, size);
  if (room) return { ...at(size, focus, room), width: size.width, height: size.height, turnDegrees: 0 };
  return focus && leastCut(size, focus, true);
}
function framedAnyway(size, focus) {
  return framed(size, focus) ?? leastCut(size, focus, false);
}
function at(size, focus, room) {
  const wanted = focus ? centre(focus.about) : USUAL;
  const up = focus ? ABOVE_CENTRE * size.height : 0;
  return { x: within(room.across, wanted.x), y: within(room.down, wanted.y + up) };
}
var TRIED = 24;
function leastCut(size, focus, uncut) {
  const [across, down] = [roomOnPicture(size.width), roomOnPicture(size.height)];
  const wanted = centre(focus.about);
  let best2 = null;
  for (let row = 0; row <= TRIED; row += 1)
    for (let column2 = 0; column2 <= TRIED; column2 += 1) {
      const x = across.least + (across.most - across.least) * column2 / TRIED;
      const y = down.least + (down.most - down.least) * row / TRIED;
      const framing = { x, y, width: size.width, height: size.height, turnDegrees: 0 };
      const window = windowOf(framing);
      const cut = cutCount(focus.whole, window);
      const seen2 = shareWithin(focus.about, window);
      const left = focus.whole.filter((box2) => shareWithin(box2, window) < 0.5).length;
      if (uncut && (cut > 0 || seen2 < 0.98)) continue;
      const cost = 10 * cut + 6 * (1 - seen2) + 3 * left + Math.hypot(x - wanted.x, y - wanted.y);
      if (!best2 || cost < best2.cost) best2 = { framing, cost };
    }
  return best2 && best2.framing;
}

// src/core/motion/seed.ts
function seedOf(text2, salt) {
  let hash = 2166136261 ^ salt;
  for (let index = 0; index < text2.length; index += 1) hash = Math.imul(hash ^ text2.charCodeAt(index), 16777619);
  hash = Math.imul(hash ^ hash >>> 16, 2246822507);
  hash = Math.imul(hash ^ hash >>> 13, 3266489909);
  return ((hash ^ hash >>> 16) >>> 0) / 4294967296;
}

// src/core/motion/automatic-move.ts
var LARGEST_ENLARGEMENT = 1.5;
var TEMPERAMENTS = ["calm", "even", "lively"];
var MOST_CUT_BY_FILLING = 0.3;
var PANORAMA_ASPECT = 2.2;
var TRAVEL_PER_SECOND = 0.11;
var MOST_SEEN_OF_LENGTH = 0.85;
var ZOOM_PER_SECOND = 0.024;
var LEAST_ZOOM = 0.06;
var MOST_ZOOM = 0.22;
var SHARE_OF = { calm: 0.6, even: 1, lively: 1.6 };
var MOST_ZOOM_PER_SECOND = 0.04;
var LEAST_SEEN_OF_FOCUS = 0.96;
var LEAST_PAN = 0.03;
var LEAST_TILT = 0.05;
function automaticMove(picture2, frame, lengthMs, seed, { unlike = null, mustFill = false, focus = null, temperament = "even" } = {}) {
  const pictureAspect = picture2.widthPx / picture2.heightPx;
  const frameAspect = frame.widthPx / frame.heightPx;
  const smallestWidth = frame.widthPx / (LARGEST_ENLARGEMENT * picture2.widthPx);
  const share = SHARE_OF[temperament];
  const seconds = lengthMs / 1e3;
  const wanted = share * Math.min(MOST_ZOOM, Math.max(LEAST_ZOOM, seconds * ZOOM_PER_SECOND));
  const zoom = Math.min(wanted, seconds * MOST_ZOOM_PER_SECOND);
  const fill = fillFraming(pictureAspect, frameAspect);
  const cut = 1 - fill.width * fill.height;
  const isLargeEnough = fill.width >= smallestWidth * (1 + LEAST_ZOOM / 2);
  const wide = mustFill ? framedAnyway(fill, focus) : framed(fill, focus);
  const fills = wide !== null && (mustFill || isLargeEnough && cut <= MOST_CUT_BY_FILLING);
  const along2 = mustFill ? [] : movesAlong(fill, pictureAspect, smallestWidth, Math.min(1, share) * seconds, focus);
  const tightness = Math.min(1, Math.max(fill.width / (1 + zoom), smallestWidth) / fill.width);
  const inside = along2.length === 0 && fills ? movesInside(wide, tightness, zoom, focus) : [];
  const near = mustFill || fills ? null : nearFraming(picture2, frame, LARGEST_ENLARGEMENT, focus);
  const moves = [along2, inside, near ? movesNear(near, zoom, focus) : []].find((some) => some.length > 0) ?? movesWhole(fitFraming(pictureAspect, frameAspect), smallestWidth, zoom);
  if (mustFill && inside.length === 0) return { name: "still", first: wide, last: wide };
  const others = moves.filter((move) => move.name !== unlike);
  const from = others.length > 0 ? others : moves;
  return from[Math.floor(seedOf(seed, 1) * from.length)];
}
function standingFraming(picture2, frame, mostEnlargement, { mustFill = false, focus = null } = {}) {
  const pictureAspect = picture2.widthPx / picture2.heightPx;
  const frameAspect = frame.widthPx / frame.heightPx;
  const smallestWidth = frame.widthPx / (mostEnlargement * picture2.widthPx);
  const fill = fillFraming(pictureAspect, frameAspect);
  if (mustFill) return framedAnyway(fill, focus);
  const standing = framed(fill, focus);
  if (standing && fill.width >= smallestWidth && 1 - fill.width * fill.height <= MOST_CUT_BY_FILLING) return standing;
  const fit = fitFraming(pictureAspect, frameAspect);
  return nearFraming(picture2, frame, mostEnlargement, focus) ?? scaled(fit, Math.max(1, smallestWidth / fit.width));
}
var NARROW_FRAME = 1.25;
var MUCH_WIDER = 1.3;
var LEAST_NEAR = 0.4;
var USUAL_NEAR = 0.68;
var BESIDE_FOCUS = 0.04;
var NEAR_STEPS = 16;
function nearFraming(picture2, frame, mostEnlargement, focus) {
  const pictureAspect = picture2.widthPx / picture2.heightPx;
  const frameAspect = frame.widthPx / frame.heightPx;
  if (frameAspect > NARROW_FRAME || pictureAspect < frameAspect * MUCH_WIDER) return null;
  const fill = fillFraming(pictureAspect, frameAspect);
  const smallestWidth = frame.widthPx / (mostEnlargement * picture2.widthPx);
  const least = Math.max(
    fill.width,
    smallestWidth,
    LEAST_NEAR,
    focus ? focus.about.width + 2 * BESIDE_FOCUS : USUAL_NEAR
  );
  for (let step2 = 0; step2 < NEAR_STEPS; step2 += 1) {
    const width = least + (1 - least) * step2 / NEAR_STEPS;
    if (width > MOST_SEEN_OF_LENGTH) return null;
    const framing = framed({ width, height: width * pictureAspect / frameAspect }, focus);
    if (framing && cutsNone({ first: framing, last: framing }, focus)) return framing;
  }
  return null;
}
function movesNear(near, zoom, focus) {
  const wide = scaled(near, Math.min(1 + zoom * 0.8, 1 / near.width));
  const moves = [
    { name: "closer", first: wide, last: near },
    { name: "away", first: near, last: wide },
    ...pans("x", near, zoom * 1.2, focus)
  ];
  return moves.filter(({ first, last }) => first.width !== last.width || first.x !== last.x).filter((move) => cutsNone(move, focus));
}
function movesAlong(fill, pictureAspect, smallestWidth, seconds, focus) {
  const across = pictureAspect >= PANORAMA_ASPECT;
  if (!across && pictureAspect > 1 / PANORAMA_ASPECT) return [];
  const framing = scaled(fill, Math.max(1, smallestWidth / fill.width));
  const seen2 = across ? framing.width : framing.height;
  if (seen2 > MOST_SEEN_OF_LENGTH) return [];
  const by = Math.min(1 - seen2, seen2 * TRAVEL_PER_SECOND * seconds);
  const at3 = (place) => across ? { ...framing, x: place, y: 0.5 } : { ...framing, x: 0.5, y: place };
  const span = (begin, end) => {
    const [first, last] = [at3(begin), at3(end)];
    const names = across ? ["left", "right"] : ["up", "down"];
    return { name: names[end > begin ? 1 : 0], first, last };
  };
  if (!focus) {
    const [begin, end] = [0.5 - by / 2, 0.5 + by / 2];
    return [span(begin, end), span(end, begin)];
  }
  const room = roomOnPicture(seen2);
  const about = centre(focus.about);
  const there = within(room, across ? about.x : about.y);
  return [within(room, there - by), within(room, there + by)].filter((away) => Math.abs(away - there) > 0.3 * by).flatMap((away) => [span(away, there), span(there, away)]).filter((move) => cutsNone(move, focus));
}
function movesInside(wide, tightness, zoom, focus) {
  const close = closest(wide, tightness, focus);
  const moves = [];
  if (close.width < wide.width)
    moves.push({ name: "closer", first: wide, last: close }, { name: "away", first: close, last: wide });
  moves.push(...pans("x", wide.width < 0.9 ? wide : close, zoom * 1.2, focus));
  moves.push(...pans("y", wide.height < 0.93 ? wide : close, zoom, focus));
  return moves.filter((move) => cutsNone(move, focus));
}
function closest(wide, tightness, focus) {
  for (let step2 = 0; step2 < 6; step2 += 1) {
    const factor = tightness + (1 - tightness) * step2 / 6;
    const framing = framed(scaled(wide, factor), focus);
    if (!framing) continue;
    const seen2 = focus ? shareWithin(focus.about, windowOf(framing)) : 1;
    const before = focus ? shareWithin(focus.about, windowOf(wide)) : 1;
    if (seen2 >= Math.min(before, LEAST_SEEN_OF_FOCUS) - 1e-9 && cutsNone({ first: wide, last: framing }, focus))
      return framing;
  }
  return wide;
}
function pans(axis2, framing, zoom, focus) {
  const size = axis2 === "x" ? framing.width : framing.height;
  const free = roomFor(focus, framing);
  const room = free ? axis2 === "x" ? free.across : free.down : { least: framing[axis2], most: framing[axis2] };
  const by = Math.min(room.most - room.least, zoom * size);
  if (by <= (axis2 === "x" ? LEAST_PAN : LEAST_TILT)) return [];
  const middle = within({ least: room.least + by / 2, most: room.most - by / 2 }, focus ? framing[axis2] : 0.5);
  const [low, high] = [
    { ...framing, [axis2]: middle - by / 2 },
    { ...framing, [axis2]: middle + by / 2 }
  ];
  const [toLow, toHigh] = axis2 === "x" ? ["left", "right"] : ["up", "down"];
  return [
    { name: toLow, first: high, last: low },
    { name: toHigh, first: low, last: high }
  ];
}
function cutsNone({ first, last }, focus) {
  const [a, b] = [windowOf(first), windowOf(last)];
  const slack = 1e-6;
  return (focus?.whole ?? []).every((box2) => {
    const isIn = (window) => box2.left >= window.left - slack && right(box2) <= right(window) + slack && box2.top >= window.top - slack && bottom(box2) <= bottom(window) + slack;
    if (isIn(a) && isIn(b)) return true;
    return [
      (window) => right(box2) <= window.left + slack,
      (window) => box2.left >= right(window) - slack,
      (window) => bottom(box2) <= window.top + slack,
      (window) => box2.top >= bottom(window) - slack
    ].some((isOut) => isOut(a) && isOut(b));
  });
}
function movesWhole(fit, smallestWidth, zoom) {
  const close = scaled(fit, Math.max(1.04, smallestWidth / fit.width));
  const wide = scaled(close, 1 + zoom * 0.8);
  const room = { across: (wide.width - 1) / 2, down: (wide.height - 1) / 2 };
  const steady2 = scaled(close, 1 + zoom * 0.4);
  const acrossBy = Math.min((steady2.width - 1) * 0.8, steady2.width * zoom * 0.3);
  const downBy = Math.min((steady2.height - 1) * 0.8, steady2.height * zoom * 0.3);
  const moves = [
    { name: "closer", first: wide, last: close },
    { name: "away", first: close, last: wide }
  ];
  const leftEnd = { ...steady2, x: 0.5 - acrossBy / 2 };
  const rightEnd = { ...steady2, x: 0.5 + acrossBy / 2 };
  if (room.across >= room.down)
    moves.push({ name: "left", first: leftEnd, last: rightEnd }, { name: "right", first: rightEnd, last: leftEnd });
  const upperEnd = { ...steady2, y: 0.5 - downBy / 2 };
  const lowerEnd = { ...steady2, y: 0.5 + downBy / 2 };
  if (room.down > room.across)
    moves.push({ name: "up", first: upperEnd, last: lowerEnd }, { name: "down", first: lowerEnd, last: upperEnd });
  return moves;
}

// src/core/motion/plan-moves.ts
var CLIP_ENLARGEMENT = 3;
var NO_MOVES = /* @__PURE__ */ new Map();
function planMoves(show, facts2, spans) {
  const moves = /* @__PURE__ */ new Map();
  let before = null;
  show.slides.forEach((slide3, index) => {
    const { leavesMs, startMs } = spans[index];
    const found = movesOfSlide(slide3, facts2, {
      frame: show.frame,
      seenMs: leavesMs - startMs,
      before,
      temperament: show.temperament ?? "even",
      rings: show.focus
    });
    moves.set(slide3.id, found);
    before = [...found.values()].at(-1)?.name ?? before;
  });
  return moves;
}
var lastFound = /* @__PURE__ */ new WeakMap();
function movesOfSlide(slide3, facts2, around2) {
  const last = lastFound.get(slide3);
  if (last && last.around.frame === around2.frame && last.around.seenMs === around2.seenMs && last.around.before === around2.before && last.around.temperament === around2.temperament && last.layers.every(
    ({ assetId: assetId2 }, index) => facts2.get(assetId2) === last.known[index] && last.around.rings?.[assetId2] === around2.rings?.[assetId2]
  ))
    return last.moves;
  const layers = [...everyLayer(slide3.layers)].filter((layer) => layer.kind === "picture" || layer.kind === "clip");
  const moves = /* @__PURE__ */ new Map();
  let lastName = around2.before;
  for (const layer of layers) {
    const known = factsInUse(layer, facts2.get(layer.assetId));
    if (!known || known.kind === "sound") continue;
    const window = pictureWindow(layer, known, around2.frame, around2.seenMs);
    const move = layer.kind === "clip" ? still(known, CLIP_ENLARGEMENT, window, null) : planned(layer, known, window, { ...around2, before: lastName });
    moves.set(layer.id, move);
    lastName = move.name;
  }
  lastFound.set(slide3, { around: around2, layers, known: layers.map((layer) => facts2.get(layer.assetId)), moves });
  return moves;
  function planned({ id, move, ...layer }, size, window, { seenMs, before, temperament }) {
    const whole2 = facts2.get(layer.assetId);
    const focus = whole2?.kind === "picture" ? focusInUse({ id, move, ...layer }, whole2, around2.rings?.[layer.assetId]) : null;
    switch (move.kind) {
      case "automatic":
        return automaticMove(size, window.shape, seenMs, move.deal === void 0 ? id : `${id} ${move.deal}`, {
          unlike: before,
          mustFill: window.mustFill,
          focus,
          temperament
        });
      case "still":
        return still(size, LARGEST_ENLARGEMENT, window, focus);
      case "set":
        return setMove(move);
      default:
        return unreachable(move);
    }
  }
  function still(size, mostEnlargement, { shape: shape3, mustFill }, focus) {
    const framing = standingFraming(size, shape3, mostEnlargement, { mustFill, focus });
    return { name: "still", first: framing, last: framing };
  }
}
function setMove({ kind: _kind, first, last, ...pace }) {
  return { name: "still", first, last, ...Object.keys(pace).length > 0 && { pace } };
}
function pictureWindow(layer, picture2, frame, seenMs) {
  const { width, height } = layer.channels ?? {};
  const widthPx = width === void 0 ? null : valueAt(width, 0, seenMs) * frame.widthPx;
  const heightPx = height === void 0 ? null : valueAt(height, 0, seenMs) * frame.heightPx;
  const aspect = picture2.widthPx / picture2.heightPx;
  if (widthPx === null && heightPx === null) return { shape: frame, mustFill: false };
  return {
    shape: {
      ...frame,
      widthPx: Math.max(1, widthPx ?? heightPx * aspect),
      heightPx: Math.max(1, heightPx ?? widthPx / aspect)
    },
    mustFill: true
  };
}

// src/core/facts/fact-kinds.ts
var FACT_KINDS = {
  /** Size, length, colour, what the camera noted: `AssetFacts`. Version 1 did not note tones, bars, captions and likeness of every picture; version 2 not what is RAW or HDR; version 3 not how many frames a second clips have. */
  basics: { version: 4 },
  /** What a picture is about: `FocusFacts`. Version 1 did not see that pictures lie on their side. */
  focus: { version: 2 },
  /** What is heard in a sound, or in a clip: `ListeningFacts`. Version 1 did not look for phrases. */
  listening: { version: 2 }
};
var CURRENT_METHODS = {
  basics: FACT_KINDS.basics.version,
  focus: FACT_KINDS.focus.version,
  listening: FACT_KINDS.listening.version
};

// src/core/show/format/version.ts
var FORMAT_VERSION = 10;

// src/core/show/show.ts
var DEFAULT_SLIDE_LENGTH_MS = 5e3;
var DEFAULT_TRANSITION = { kind: "dissolve", lengthMs: 1e3 };
function emptyShow(id, title) {
  return {
    format: "tanager-show",
    version: FORMAT_VERSION,
    id,
    title,
    frame: { widthPx: 1920, heightPx: 1080, rate: { frames: 30, seconds: 1 } },
    defaultLengthMs: DEFAULT_SLIDE_LENGTH_MS,
    slides: [],
    cues: [],
    methods: CURRENT_METHODS
  };
}
function contentOf({ format: _format, version: _version, id: _id2, ...content }) {
  return content;
}
function mainLayerOf(slide3) {
  for (const layer of everyLayer(slide3.layers)) if (layer.kind === "picture" || layer.kind === "clip") return layer;
  return null;
}

// src/core/show/transition.ts
var FOUR_WAYS = ["left", "right", "up", "down"];
var EIGHT_WAYS = [...FOUR_WAYS, "up-left", "up-right", "down-left", "down-right"];
var IRIS_SHAPES = ["circle", "diamond", "square", "star"];
var PATTERN_NAMES = ["clouds", "brush", "rain", "ripples", "spiral", "shards"];
var TRANSITION_FAMILIES = [
  "plain",
  "wipes",
  "shapes",
  "patterns",
  "slides",
  "zooms",
  "turns"
];

// src/core/transitions/transition-kind.ts
var direction = (values, usual) => ({
  is: "choice",
  label: "Direction",
  values,
  usual
});
var HARD = 2e-3;
var softnessOf = (transition, usual) => Math.max(HARD, transition.softness ?? usual);
function schemaOf(parameter) {
  switch (parameter.is) {
    case "choice":
      return maybe(oneOf(parameter.values));
    case "pattern":
      return either(
        { when: "string", then: oneOf(PATTERN_NAMES) },
        { when: "object", then: object({ assetId: HASH }) }
      );
    case "switch":
      return maybe(truth);
    case "softness":
      return maybe(number(0, 1));
    case "count":
      return maybe(whole(parameter.least, parameter.most));
    case "colour":
      return maybe(COLOUR);
    case "seed":
      return maybe(whole(0, 1e9));
  }
}

// src/core/transitions/kinds/blinds.ts
var USUAL_COUNT = 8;
var USUAL_SOFTNESS = 0.1;
var blinds = {
  kind: "blinds",
  name: "blinds",
  family: "wipes",
  movesPictures: false,
  parameters: {
    direction: direction(FOUR_WAYS, "down"),
    count: { is: "count", usual: USUAL_COUNT, least: 1, most: 100 },
    softness: { is: "softness", usual: USUAL_SOFTNESS }
  },
  plan: (transition) => ({
    kind: "map",
    map: { kind: "blinds", direction: transition.direction ?? "down", count: transition.count ?? USUAL_COUNT },
    softness: softnessOf(transition, USUAL_SOFTNESS)
  })
};

// src/core/transitions/kinds/blur-through.ts
var blurThrough = {
  kind: "blur-through",
  name: "blur through",
  family: "plain",
  movesPictures: false,
  parameters: {},
  plan: () => ({ kind: "blur-through" })
};

// src/core/transitions/kinds/burn.ts
var USUAL_COLOUR = "#ffffff";
var burn = {
  kind: "burn",
  name: "burn",
  family: "plain",
  movesPictures: false,
  parameters: { colour: { is: "colour", usual: USUAL_COLOUR } },
  plan: ({ colour }) => ({ kind: "burn", colour: colour ?? USUAL_COLOUR })
};

// src/core/transitions/kinds/card-turn.ts
var cardTurn = {
  kind: "card-turn",
  name: "card turn",
  family: "turns",
  movesPictures: true,
  parameters: { direction: direction(FOUR_WAYS, "left") },
  plan: (transition) => ({ kind: "card-turn", direction: transition.direction ?? "left" })
};

// src/core/transitions/kinds/checks.ts
var USUAL_COUNT2 = 9;
var USUAL_SOFTNESS2 = 0.2;
var checks = {
  kind: "checks",
  name: "checks",
  family: "shapes",
  movesPictures: false,
  parameters: {
    seed: { is: "seed", usual: 1 },
    count: { is: "count", usual: USUAL_COUNT2, least: 1, most: 100 },
    softness: { is: "softness", usual: USUAL_SOFTNESS2 }
  },
  plan: (transition) => ({
    kind: "map",
    map: { kind: "checks", count: transition.count ?? USUAL_COUNT2, seed: transition.seed ?? 1 },
    softness: softnessOf(transition, USUAL_SOFTNESS2)
  })
};

// src/core/transitions/kinds/clock.ts
var WAYS = ["clockwise", "anticlockwise"];
var USUAL_SOFTNESS3 = 0.02;
var clock = {
  kind: "clock",
  name: "clock",
  family: "wipes",
  movesPictures: false,
  parameters: { direction: direction(WAYS, "clockwise"), softness: { is: "softness", usual: USUAL_SOFTNESS3 } },
  plan: (transition) => ({
    kind: "map",
    map: { kind: "clock", direction: transition.direction ?? "clockwise" },
    softness: softnessOf(transition, USUAL_SOFTNESS3)
  })
};

// src/core/transitions/kinds/cube-turn.ts
var cubeTurn = {
  kind: "cube-turn",
  name: "cube turn",
  family: "turns",
  movesPictures: true,
  parameters: { direction: direction(FOUR_WAYS, "left") },
  plan: (transition) => ({ kind: "cube-turn", direction: transition.direction ?? "left" })
};

// src/core/transitions/kinds/dip.ts
var USUAL_COLOUR2 = "#000000";
var dip = {
  kind: "dip",
  name: "dip to colour",
  family: "plain",
  movesPictures: false,
  parameters: { colour: { is: "colour", usual: USUAL_COLOUR2 } },
  plan: ({ colour }) => ({ kind: "dip", colour: colour ?? USUAL_COLOUR2 })
};

// src/core/transitions/kinds/dissolve.ts
var dissolve = {
  kind: "dissolve",
  name: "dissolve",
  family: "plain",
  movesPictures: false,
  parameters: {},
  plan: () => ({ kind: "dissolve" })
};

// src/core/transitions/kinds/iris.ts
var USUAL_SOFTNESS4 = 0.05;
var iris = {
  kind: "iris",
  name: "iris",
  family: "shapes",
  movesPictures: false,
  parameters: {
    shape: { is: "choice", label: "Shape", values: IRIS_SHAPES, usual: "circle" },
    direction: direction(["open", "close"], "open"),
    softness: { is: "softness", usual: USUAL_SOFTNESS4 }
  },
  plan: (transition) => ({
    kind: "map",
    map: { kind: "iris", shape: transition.shape ?? "circle", direction: transition.direction ?? "open" },
    softness: softnessOf(transition, USUAL_SOFTNESS4)
  })
};

// src/core/transitions/kinds/mosaic.ts
var USUAL_COUNT3 = 24;
var mosaic = {
  kind: "mosaic",
  name: "mosaic",
  family: "plain",
  movesPictures: false,
  parameters: { count: { is: "count", usual: USUAL_COUNT3, least: 2, most: 200 } },
  plan: ({ count }) => ({ kind: "mosaic", count: count ?? USUAL_COUNT3 })
};

// src/core/transitions/kinds/page-turn.ts
var pageTurn = {
  kind: "page-turn",
  name: "page turn",
  family: "turns",
  movesPictures: true,
  parameters: { direction: direction(FOUR_WAYS, "left") },
  plan: (transition) => ({ kind: "page-turn", direction: transition.direction ?? "left" })
};

// src/core/transitions/kinds/pattern.ts
var USUAL_SOFTNESS5 = 0.2;
var pattern = {
  kind: "pattern",
  name: "pattern",
  family: "patterns",
  movesPictures: false,
  parameters: {
    pattern: { is: "pattern", usual: "clouds" },
    inverted: { is: "switch", label: "the other way round", usual: false },
    softness: { is: "softness", usual: USUAL_SOFTNESS5 }
  },
  plan: (transition) => {
    const { pattern: pattern2, inverted = false } = transition;
    return {
      kind: "map",
      map: typeof pattern2 === "string" ? { kind: "pattern", pattern: pattern2, inverted } : { kind: "own-pattern", assetId: pattern2.assetId, inverted },
      softness: softnessOf(transition, USUAL_SOFTNESS5)
    };
  }
};

// src/core/transitions/kinds/push.ts
var push = {
  kind: "push",
  name: "push",
  family: "slides",
  movesPictures: true,
  parameters: { direction: direction(FOUR_WAYS, "left") },
  plan: (transition) => ({ kind: "push", direction: transition.direction ?? "left" })
};

// src/core/transitions/kinds/slide-apart.ts
var slideApart = {
  kind: "slide-apart",
  name: "slide apart",
  family: "slides",
  movesPictures: true,
  parameters: { direction: direction(["across", "down"], "across") },
  plan: (transition) => ({ kind: "slide-apart", direction: transition.direction ?? "across" })
};

// src/core/transitions/kinds/slide-off.ts
var slideOff = {
  kind: "slide-off",
  name: "slide off",
  family: "slides",
  movesPictures: true,
  parameters: { direction: direction(FOUR_WAYS, "left") },
  plan: (transition) => ({ kind: "slide-off", direction: transition.direction ?? "left" })
};

// src/core/transitions/kinds/slide-over.ts
var slideOver = {
  kind: "slide-over",
  name: "slide over",
  family: "slides",
  movesPictures: true,
  parameters: { direction: direction(FOUR_WAYS, "left") },
  plan: (transition) => ({ kind: "slide-over", direction: transition.direction ?? "left" })
};

// src/core/transitions/kinds/wipe.ts
var USUAL_SOFTNESS6 = 0.15;
var wipe = {
  kind: "wipe",
  name: "wipe",
  family: "wipes",
  movesPictures: false,
  parameters: { direction: direction(EIGHT_WAYS, "right"), softness: { is: "softness", usual: USUAL_SOFTNESS6 } },
  plan: (transition) => ({
    kind: "map",
    map: { kind: "wipe", direction: transition.direction ?? "right" },
    softness: softnessOf(transition, USUAL_SOFTNESS6)
  })
};

// src/core/transitions/kinds/zoom-blur.ts
var zoomBlur = {
  kind: "zoom-blur",
  name: "zoom blur",
  family: "zooms",
  movesPictures: true,
  parameters: { direction: direction(["in", "out"], "in") },
  plan: (transition) => ({ kind: "zoom-blur", direction: transition.direction ?? "in" })
};

// src/core/transitions/kinds/zoom-through.ts
var zoomThrough = {
  kind: "zoom-through",
  name: "zoom through",
  family: "zooms",
  movesPictures: true,
  parameters: { direction: direction(["in", "out"], "in") },
  plan: (transition) => ({ kind: "zoom-through", direction: transition.direction ?? "in" })
};

// src/core/transitions/transitions.ts
var TRANSITIONS = {
  dissolve,
  dip,
  burn,
  "blur-through": blurThrough,
  mosaic,
  wipe,
  blinds,
  clock,
  iris,
  checks,
  pattern,
  push,
  "slide-over": slideOver,
  "slide-off": slideOff,
  "slide-apart": slideApart,
  "zoom-through": zoomThrough,
  "zoom-blur": zoomBlur,
  "page-turn": pageTurn,
  "card-turn": cardTurn,
  "cube-turn": cubeTurn
};
var RECORDS = Object.values(TRANSITIONS);
var FAMILIES = Object.fromEntries(
  TRANSITION_FAMILIES.map((family) => [family, RECORDS.filter((of) => of.family === family).map((of) => of.kind)])
);

// src/core/transitions/transition-plan.ts
function planTransition(transition, slideId2) {
  const plain3 = transition.kind === "shuffle" ? dealt(transition, slideId2) : transition;
  return recordOf(plain3.kind).plan(plain3);
}
function dealt(shuffle, slideId2) {
  const text2 = `${shuffle.seed} ${slideId2}`;
  const kinds2 = shuffle.family === "all" ? Object.values(FAMILIES).flat() : FAMILIES[shuffle.family];
  const kind = pick(kinds2, seedOf(text2, 1));
  const timed = { lengthMs: shuffle.lengthMs, ...shuffle.easing !== void 0 && { easing: shuffle.easing } };
  const parts = {};
  let draw = 2;
  for (const [name, parameter] of Object.entries(recordOf(kind).parameters)) {
    const value = dealtValue(parameter, seedOf(text2, draw));
    if (value === void 0) continue;
    parts[name] = value;
    draw += 1;
  }
  return { kind, ...timed, ...parts };
}
function dealtValue(parameter, luck) {
  if (parameter.is === "choice") return pick(parameter.values, luck);
  if (parameter.is === "pattern") return pick(PATTERN_NAMES, luck);
  if (parameter.is === "switch") return luck < 0.5;
  return parameter.is === "seed" ? Math.floor(luck * 1e6) : void 0;
}
function pick(from, luck) {
  return from[Math.floor(luck * from.length)];
}
function transitionProgress(transition, slideId2, share) {
  const { kind, easing } = transition.kind === "shuffle" ? dealt(transition, slideId2) : transition;
  return Math.min(1, Math.max(0, curveOf(easing ?? (recordOf(kind).movesPictures ? "settle" : "linear"))(share)));
}
function recordOf(kind) {
  return TRANSITIONS[kind];
}

// src/core/motion/move-pace.ts
function framingAt({ first, last, pace }, offsetMs, seenMs) {
  const [beforeMs, afterMs] = restsOf(pace, seenMs);
  const goingMs = seenMs - beforeMs - afterMs;
  const time = goingMs > 0 ? Math.min(1, Math.max(0, (offsetMs - beforeMs) / goingMs)) : offsetMs < beforeMs ? 0 : 1;
  const progress = curveOf(pace?.easing ?? "settle")(time);
  if (!pace?.middle) return betweenFramings(first, last, progress);
  return along(first, pace.middle.framing, last, pace.middle.at, progress);
}
function restsOf(pace, seenMs) {
  const [before, after] = [pace?.beforeMs ?? 0, pace?.afterMs ?? 0];
  const scale = before + after > seenMs ? seenMs / (before + after) : 1;
  return [before * scale, after * scale];
}
function narrowestWidth({ first, last, pace }) {
  return Math.min(first.width, last.width, pace?.middle?.framing.width ?? Infinity);
}
function along(first, middle, last, at3, progress) {
  const early = progress < at3;
  const [from, to] = early ? [first, middle] : [middle, last];
  const [begin, span] = early ? [0, at3] : [at3, 1 - at3];
  const t = (progress - begin) / span;
  const part = (of) => {
    const through = (of(last) - of(first)) * span;
    const [slopeFrom, slopeTo] = early ? [of(middle) - of(first), through] : [through, of(last) - of(middle)];
    const [t2, t3] = [t * t, t * t * t];
    return (2 * t3 - 3 * t2 + 1) * of(from) + (t3 - 2 * t2 + t) * slopeFrom + (-2 * t3 + 3 * t2) * of(to) + (t3 - t2) * slopeTo;
  };
  return {
    x: part((framing) => framing.x),
    y: part((framing) => framing.y),
    width: Math.exp(part((framing) => Math.log(framing.width))),
    height: Math.exp(part((framing) => Math.log(framing.height))),
    turnDegrees: part((framing) => framing.turnDegrees)
  };
}

// src/core/frame/picture-size.ts
var LEAST_RATIO = 1.1;
var GIVES_WAY = 1.38;
var GREATEST_RATIO = 1.5;
var STEP = GREATEST_RATIO / LEAST_RATIO;
var LARGEST_SIDE_PX = 8e3;
var SMALLEST_SIDE_PX = 16;
function wantedWidthPx(shownWidthPx2, framingWidth) {
  return LEAST_RATIO * shownWidthPx2 / framingWidth;
}
function pictureSizeFor(picture2, move, frame) {
  return sizeOfWidth(picture2, wantedWidthPx(frame.widthPx, narrowestWidth(move)));
}
function sizesFor(picture2, largestPx, wantedPx) {
  const steps = Math.log(Math.max(1, largestPx / Math.max(SMALLEST_SIDE_PX, wantedPx))) / Math.log(STEP);
  const rung = Math.floor(steps + 1e-9);
  const ratio = LEAST_RATIO * STEP ** (steps - rung);
  const size = (at3) => sizeOfWidth(picture2, largestPx / STEP ** at3);
  const next = (ratio - GIVES_WAY) / (GREATEST_RATIO - GIVES_WAY);
  return next <= 0 ? [{ size: size(rung), share: 1 }] : [
    { size: size(rung), share: 1 },
    { size: size(rung + 1), share: Math.min(1, next) }
  ];
}
function sizeOfWidth(picture2, wantedPx) {
  const aspect = picture2.heightPx / picture2.widthPx;
  const widthPx = Math.min(wantedPx, LARGEST_SIDE_PX, LARGEST_SIDE_PX / aspect);
  return { widthPx: even(widthPx), heightPx: even(widthPx * aspect) };
}
function even(value) {
  return Math.max(2, 2 * Math.round(value / 2));
}

// src/core/frame/matrix.ts
var IDENTITY4 = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
function times4(a, b) {
  const out2 = [];
  for (let row = 0; row < 4; row += 1)
    for (let column2 = 0; column2 < 4; column2 += 1) {
      let sum = 0;
      for (let k = 0; k < 4; k += 1) sum += a[4 * row + k] * b[4 * k + column2];
      out2.push(sum);
    }
  return out2;
}
function times3(a, b) {
  const out2 = [];
  for (let row = 0; row < 3; row += 1)
    for (let column2 = 0; column2 < 3; column2 += 1) {
      out2.push(a[3 * row] * b[column2] + a[3 * row + 1] * b[3 + column2] + a[3 * row + 2] * b[6 + column2]);
    }
  return out2;
}
function translation(x, y, z) {
  return [1, 0, 0, x, 0, 1, 0, y, 0, 0, 1, z, 0, 0, 0, 1];
}
function scaling(x, y, z) {
  return [x, 0, 0, 0, 0, y, 0, 0, 0, 0, z, 0, 0, 0, 0, 1];
}
function rotation(turnDegrees, tiltXDegrees, tiltYDegrees) {
  const [turn2, leanX, leanY] = [turnDegrees, tiltXDegrees, tiltYDegrees].map(
    (degrees) => degrees * Math.PI / 180
  );
  const z = [Math.cos(turn2), -Math.sin(turn2), 0, 0, Math.sin(turn2), Math.cos(turn2), 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
  const x = [1, 0, 0, 0, 0, Math.cos(leanX), -Math.sin(leanX), 0, 0, Math.sin(leanX), Math.cos(leanX), 0, 0, 0, 0, 1];
  const y = [Math.cos(leanY), 0, Math.sin(leanY), 0, 0, 1, 0, 0, -Math.sin(leanY), 0, Math.cos(leanY), 0, 0, 0, 0, 1];
  return times4(times4(y, x), z);
}
function inverse3(m) {
  const [a, b, c2, d, e, f, g, h, i] = m;
  const [A, B, C] = [e * i - f * h, f * g - d * i, d * h - e * g];
  const determinant = a * A + b * B + c2 * C;
  const size = Math.max(...m.map(Math.abs));
  if (!(Math.abs(determinant) > 1e-12 * size ** 3)) return null;
  return [A, c2 * h - b * i, b * f - c2 * e, B, a * i - c2 * g, c2 * d - a * f, C, b * g - a * h, a * e - b * d].map(
    (value) => value / determinant
  );
}
function mapped(m, x, y) {
  const w = m[6] * x + m[7] * y + m[8];
  return { x: (m[0] * x + m[1] * y + m[2]) / w, y: (m[3] * x + m[4] * y + m[5]) / w, w };
}
function inSpace(m, x, y) {
  return [m[0] * x + m[1] * y + m[3], m[4] * x + m[5] * y + m[7], m[8] * x + m[9] * y + m[11]];
}
function projected(m, eye) {
  const rows3 = [0, 4, 8].map((at3) => [m[at3], m[at3 + 1], m[at3 + 3]]);
  const w = [-rows3[2][0] / eye.distance, -rows3[2][1] / eye.distance, 1 - rows3[2][2] / eye.distance];
  const line = (row, centre2) => [0, 1, 2].map((k) => row[k] + centre2 * (w[k] - (k === 2 ? 1 : 0)));
  return [...line(rows3[0], eye.x), ...line(rows3[1], eye.y), ...w];
}

// src/core/frame/layer-poses.ts
function layerPoses(around2, offsetMs) {
  const parents = parentsOf(around2.slide.layers);
  const byId = new Map([...everyLayer(around2.slide.layers)].map((layer) => [layer.id, layer]));
  const boxes = /* @__PURE__ */ new Map();
  const own = posesAt(around2, offsetMs);
  const rest = offsetMs === 0 ? null : posesAt(around2, 0);
  let resting = null;
  const poses = {
    box(layer) {
      const known = boxes.get(layer.id);
      if (known) return known;
      const parent = parents.get(layer.id);
      const free = times4(parent ? poses.inside(parent) : IDENTITY4, own.box(layer));
      const followed = follow(layer, free);
      boxes.set(layer.id, followed);
      return followed;
    },
    inside: (group) => times4(poses.box(group), own.frameInBox(group)),
    opacity(layer) {
      const leader = layer.tether?.opacity ? byId.get(layer.tether.to) : void 0;
      return own.opacity(layer) * (leader ? poses.opacity(leader) : 1);
    },
    size: own.size,
    framing: own.framing
  };
  return poses;
  function follow(layer, free) {
    const { tether } = layer;
    const leader = tether && byId.get(tether.to);
    if (!tether || !leader || !rest) return free;
    resting ??= layerPoses(around2, 0);
    const then = similarity(shown(resting, leader));
    const now = similarity(shown(poses, leader));
    const ratio = tether.size ? [now.width / then.width, now.height / then.height] : [1, 1];
    const turned2 = tether.turn ? now.turn - then.turn : 0;
    const [cx, cy, cz] = inSpace(free, 0.5, 0.5);
    let [x, y, z] = [cx, cy, cz];
    if (tether.position) {
      const [cos, sin2] = [Math.cos(then.turn), Math.sin(then.turn)];
      const along2 = (cos * (cx - then.x) + sin2 * (cy - then.y)) * ratio[0];
      const across = (cos * (cy - then.y) - sin2 * (cx - then.x)) * ratio[1];
      const by = then.turn + turned2;
      if (tether.along !== "y") x = now.x + Math.cos(by) * along2 - Math.sin(by) * across;
      if (tether.along !== "x") y = now.y + Math.sin(by) * along2 + Math.cos(by) * across;
      if (!tether.along) z = cz + now.z - then.z;
    }
    const grown2 = times4(
      free,
      times4(translation(0.5, 0.5, 0), times4(scaling(ratio[0], ratio[1], 1), translation(-0.5, -0.5, 0)))
    );
    const leaned = tether.tilt ? leanedSince(poses.box(leader), resting.box(leader)) : IDENTITY4;
    return times4(
      translation(x, y, z),
      times4(leaned, times4(rotation(turned2 * 180 / Math.PI, 0, 0), times4(translation(-cx, -cy, -cz), grown2)))
    );
  }
  function shown(at3, leader) {
    const framing = at3.framing(leader);
    const box2 = at3.box(leader);
    if (!framing) return box2;
    const facts2 = "assetId" in leader ? factsInUse(leader, around2.facts.get(leader.assetId)) : void 0;
    const aspect = facts2 && facts2.kind !== "sound" ? facts2.heightPx / facts2.widthPx : 1;
    return times4(box2, unmirrored(leader, pictureToBox(framing, aspect)));
  }
}
function unmirrored(layer, toBox) {
  const flip = layer.kind === "picture" || layer.kind === "clip" ? layer.flip : void 0;
  if (!flip?.across && !flip?.down) return toBox;
  const [x, y] = [flip.across ? -1 : 1, flip.down ? -1 : 1];
  const mirror = [x, 0, 0, (1 - x) / 2, 0, y, 0, (1 - y) / 2, 0, 0, 1, 0, 0, 0, 0, 1];
  return times4(times4(mirror, toBox), mirror);
}
function pictureToBox(framing, aspect) {
  const turn2 = -framing.turnDegrees * Math.PI / 180;
  const [cos, sin2] = [Math.cos(turn2), Math.sin(turn2)];
  const [w, h] = [framing.width, framing.height];
  const right2 = 0.5 - (cos * framing.x - sin2 * aspect * framing.y) / w;
  const down = 0.5 - (sin2 / aspect * framing.x + cos * framing.y) / h;
  return [cos / w, -sin2 * aspect / w, 0, right2, sin2 / (aspect * h), cos / h, 0, down, 0, 0, 1, 0, 0, 0, 0, 1];
}
function similarity(box2) {
  const [x, y, z] = inSpace(box2, 0.5, 0.5);
  return {
    x,
    y,
    z,
    width: Math.hypot(box2[0], box2[4], box2[8]),
    height: Math.hypot(box2[1], box2[5], box2[9]),
    turn: Math.atan2(box2[4], box2[0])
  };
}
function leanedSince(now, then) {
  const [a, b] = [leanOf(now), leanOf(then)];
  return times4(a, transposed(b));
}
function leanOf(box2) {
  const [u, v] = [column(box2, 0), column(box2, 1)];
  const [x, y, z] = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
  const degrees = 180 / Math.PI;
  return rotation(0, Math.asin(Math.min(1, Math.max(-1, -y))) * degrees, Math.atan2(x, z) * degrees);
}
function column(box2, at3) {
  const [x, y, z] = [box2[at3], box2[4 + at3], box2[8 + at3]];
  const length = Math.hypot(x, y, z) || 1;
  return [x / length, y / length, z / length];
}
function transposed(m) {
  return [0, 4, 8, 12, 1, 5, 9, 13, 2, 6, 10, 14, 3, 7, 11, 15].map((at3) => m[at3]);
}
function posesAt({ facts: facts2, moves, frame, seenMs }, offsetMs) {
  const at3 = (channel2, usual) => channel2 === void 0 ? usual : valueAt(channel2, offsetMs, seenMs);
  const size = (layer) => {
    const { width, height } = layer.channels ?? {};
    if (width === void 0 === (height === void 0))
      return { widthPx: at3(width, 1) * frame.widthPx, heightPx: at3(height, 1) * frame.heightPx };
    const known = "assetId" in layer ? factsInUse(layer, facts2.get(layer.assetId)) : void 0;
    const aspect = known && known.kind !== "sound" ? known.widthPx / known.heightPx : frame.widthPx / frame.heightPx;
    if (width !== void 0)
      return { widthPx: at3(width, 1) * frame.widthPx, heightPx: at3(width, 1) * frame.widthPx / aspect };
    return { widthPx: at3(height, 1) * frame.heightPx * aspect, heightPx: at3(height, 1) * frame.heightPx };
  };
  return {
    size,
    box(layer) {
      const channels2 = layer.channels ?? {};
      const { widthPx, heightPx } = size(layer);
      const stands = translation(
        at3(channels2.x, 0.5) * frame.widthPx,
        at3(channels2.y, 0.5) * frame.heightPx,
        at3(channels2.z, 0) * frame.heightPx
      );
      const turned2 = times4(
        stands,
        rotation(at3(channels2.turnDegrees, 0), at3(channels2.tiltXDegrees, 0), at3(channels2.tiltYDegrees, 0))
      );
      const depth = layer.kind === "group" ? Math.sqrt(widthPx * heightPx / (frame.widthPx * frame.heightPx)) : 1;
      return times4(turned2, times4(scaling(widthPx, heightPx, depth), translation(-0.5, -0.5, 0)));
    },
    frameInBox: () => scaling(1 / frame.widthPx, 1 / frame.heightPx, 1),
    opacity: (layer) => Math.min(1, Math.max(0, at3(layer.channels?.opacity, 1))),
    framing(layer) {
      const move = moves.get(layer.id);
      return move ? framingAt(move, offsetMs, seenMs) : null;
    }
  };
}
function parentsOf(layers, parent = null, into = /* @__PURE__ */ new Map()) {
  for (const layer of layers) {
    if (parent) into.set(layer.id, parent);
    if (layer.kind === "group") parentsOf(layer.layers, layer, into);
  }
  return into;
}

// src/core/keys/colour.ts
function colourAt(channel2, offsetMs, seenMs) {
  if (typeof channel2 === "string") return channel2;
  const { keys: keys2, still } = channel2;
  if (still !== void 0) return still;
  const { from, to, progress } = between(keys2, keyTimes(keys2, seenMs), offsetMs);
  if (to === null) return keys2[from].colour;
  return mixed(keys2[from].colour, keys2[to].colour, curveOf(keys2[from].easing ?? "settle")(progress));
}
function mixed(one, other, share) {
  if (share <= 0 || one === other) return one;
  if (share >= 1) return other;
  const [a, b] = [okLab(one), okLab(other)];
  return hex([0, 1, 2].map((k) => a[k] + (b[k] - a[k]) * share));
}
var toLinear = (value) => value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
var toGamma = (value) => value <= 31308e-7 ? 12.92 * value : 1.055 * value ** (1 / 2.4) - 0.055;
function okLab(colour) {
  const [r, g, b] = [1, 3, 5].map((at3) => toLinear(parseInt(colour.slice(at3, at3 + 2), 16) / 255));
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s
  ];
}
function hex([lightness, a, b]) {
  const l = (lightness + 0.3963377774 * a + 0.2158037573 * b) ** 3;
  const m = (lightness - 0.1055613458 * a - 0.0638541728 * b) ** 3;
  const s = (lightness - 0.0894841775 * a - 1.291485548 * b) ** 3;
  const channels2 = [
    4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s,
    -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s,
    -0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s
  ].map((value) => Math.round(255 * Math.min(1, Math.max(0, toGamma(Math.max(0, value))))));
  return `#${channels2.map((value) => value.toString(16).padStart(2, "0")).join("")}`;
}

// src/core/frame/slide-moment.ts
var USUAL_DISTANCE = 2.5;
function slideMoment(around2, offsetMs) {
  return {
    around: around2,
    offsetMs,
    poses: layerPoses(around2, offsetMs),
    usualEye: usualEye(around2.frame),
    at: (channel2, usual) => channel2 === void 0 ? usual : valueAt(channel2, offsetMs, around2.seenMs),
    colour: (channel2) => colourAt(channel2, offsetMs, around2.seenMs)
  };
}
function usualEye({ widthPx, heightPx }) {
  return { x: widthPx / 2, y: heightPx / 2, distance: USUAL_DISTANCE * heightPx };
}

// src/core/frame/box-on-screen.ts
var LARGEST_BITMAP_PX = 4096;
var LOOKS = 24;
function mirrored(m) {
  return [-m[0], m[1], m[0] + m[2], -m[3], m[4], m[3] + m[5], -m[6], m[7], m[6] + m[8]];
}
function flipped(m, down) {
  return down ? [m[0], -m[1], m[1] + m[2], m[3], -m[4], m[4] + m[5], m[6], -m[7], m[7] + m[8]] : m;
}
function frameToScreen({ widthPx, heightPx }) {
  return [widthPx, 0, 0, 0, heightPx, 0, 0, 0, 1];
}
function boxToScreen(leftPx, topPx, widthPx, heightPx) {
  return [widthPx, 0, leftPx, 0, heightPx, topPx, 0, 0, 1];
}
function isFrame(toScreen, frame) {
  const wanted = frameToScreen(frame);
  return toScreen.every((value, index) => Math.abs(value - wanted[index]) <= 1e-6);
}
function shownSize(toScreen) {
  const { x, y, w } = mapped(toScreen, 0.5, 0.5);
  if (!(w > 0)) return [0, 0];
  const slope = (row, column2, value) => (toScreen[3 * row + column2] - value * toScreen[6 + column2]) / w;
  return [Math.hypot(slope(0, 0, x), slope(1, 0, y)), Math.hypot(slope(0, 1, x), slope(1, 1, y))];
}
function shownWidthPx(toScreen) {
  return Math.max(1, shownSize(toScreen)[0]);
}
function bitmapFor(around2, key2, toScreen) {
  const { widthPx, heightPx } = largestOnScreen(around2, key2, toScreen);
  const scale = Math.min(1, LARGEST_BITMAP_PX / Math.max(widthPx, heightPx, 1));
  const up = (value) => Math.max(4, Math.min(LARGEST_BITMAP_PX, Math.ceil(value * scale)));
  return { widthPx: up(widthPx), heightPx: up(heightPx) };
}
function largestOnScreen(around2, key2, toScreen) {
  const known = around2.largest.get(key2);
  const [w, h] = shownSize(toScreen);
  if (known && known.widthPx >= w * 0.999 && known.heightPx >= h * 0.999) return known;
  const id = key2.split(" ")[0];
  const layer = [...everyLayer(around2.slide.layers)].find((candidate) => candidate.id === id);
  let [widest, highest] = [Math.max(w, known?.widthPx ?? 0), Math.max(h, known?.heightPx ?? 0)];
  if (!known && layer) {
    const eye = usualEye(around2.frame);
    for (let step2 = 0; step2 <= LOOKS; step2 += 1) {
      const poses = layerPoses(around2, around2.seenMs * step2 / LOOKS);
      const [sw, sh] = shownSize(projected(poses.box(layer), eye));
      if (Number.isFinite(sw) && Number.isFinite(sh)) [widest, highest] = [Math.max(widest, sw), Math.max(highest, sh)];
    }
  }
  const found = {
    widthPx: Math.min(widest, LARGEST_BITMAP_PX * 2),
    heightPx: Math.min(highest, LARGEST_BITMAP_PX * 2)
  };
  around2.largest.set(key2, found);
  return found;
}

// src/core/frame/box-faces.ts
function boxFaces(layer, box2, depthPx) {
  const width = Math.hypot(box2[0], box2[4], box2[8]);
  const height = Math.hypot(box2[1], box2[5], box2[9]);
  const middle = times4(box2, times4(translation(0.5, 0.5, 0), scaling(1 / width, 1 / height, 1)));
  const depth = Math.max(1e-6, depthPx);
  const face = (side, turn2, out2, w, h) => ({
    side,
    face: layer.faces[side],
    aspect: w / h,
    box: times4(
      middle,
      times4(turn2, times4(translation(0, 0, out2), times4(scaling(w, h, 1), translation(-0.5, -0.5, 0))))
    )
  });
  return [
    face("front", rotation(0, 0, 0), depth / 2, width, height),
    face("back", rotation(0, 0, 180), depth / 2, width, height),
    face("right", rotation(0, 0, 90), width / 2, depth, height),
    face("left", rotation(0, 0, -90), width / 2, depth, height),
    face("bottom", rotation(0, -90, 0), height / 2, width, depth),
    face("top", rotation(0, 90, 0), height / 2, width, depth)
  ];
}

// src/core/words/passage.ts
var WAIT_MS = 300;
var FADE_MS = 600;
var UNIT_SHARE = 0.4;
function planPassage(layer, span, offsetMs) {
  const lengthMs = span.endMs - span.startMs;
  const entrance = entranceOf(layer, span);
  const exit = layer.come?.exit ?? null;
  const shareOf = (fromMs, overMs) => overMs <= 0 ? Number(offsetMs >= fromMs) : Math.min(1, Math.max(0, (offsetMs - fromMs) / overMs));
  return {
    entrance: {
      way: entrance.way,
      by: entrance.by,
      share: entrance.way === "none" ? Number(offsetMs >= entrance.atMs) : shareOf(entrance.atMs, entrance.lengthMs)
    },
    exit: exit ? {
      way: exit.way,
      by: exit.by,
      share: exit.way === "none" ? Number(offsetMs >= lengthMs - exit.atMs) : shareOf(lengthMs - exit.atMs - exit.lengthMs, exit.lengthMs)
    } : { way: "none", by: "all", share: 0 },
    travel: layer.travel ? {
      kind: layer.travel.kind,
      share: shareOf(
        layer.travel.fromMs,
        layer.travel.lengthMs ?? span.leavesMs - span.startMs - layer.travel.fromMs
      )
    } : null
  };
}
function entranceOf(layer, span) {
  if (layer.come) return layer.come.entrance;
  if (layer.travel) return { way: "none", by: "all", atMs: 0, lengthMs: 0 };
  const lengthMs = span.endMs - span.startMs;
  return {
    way: "fade",
    by: "all",
    atMs: Math.min(span.transitionMs / 2 + WAIT_MS, lengthMs / 4),
    lengthMs: FADE_MS
  };
}
function finerUnit(a, b) {
  const order2 = ["all", "line", "word", "letter"];
  return order2[Math.max(order2.indexOf(a), order2.indexOf(b))];
}
var HERE = { opacity: 1, down: 0, shown: 1, blur: 0 };
function pieceState(plan, entering, leaving) {
  const coming2 = stateAt(
    plan.entrance.way,
    unitShare(plan.entrance.way, plan.entrance.share, entering.index, entering.count)
  );
  const going = stateAt(plan.exit.way, 1 - unitShare(plan.exit.way, plan.exit.share, leaving.index, leaving.count));
  return {
    opacity: coming2.opacity * going.opacity,
    down: coming2.down - going.down,
    shown: Math.min(coming2.shown, going.shown),
    blur: Math.max(coming2.blur, going.blur)
  };
}
function unitShare(way, share, index, count) {
  if (count <= 1) return share;
  if (way === "type") return share >= 1 || share * count > index ? 1 : 0;
  const starts = (1 - UNIT_SHARE) * index / (count - 1);
  return Math.min(1, Math.max(0, (share - starts) / UNIT_SHARE));
}
function stateAt(way, share) {
  if (share >= 1) return HERE;
  if (share <= 0) return { opacity: 0, down: 0, shown: way === "wipe" ? 0 : 1, blur: 0 };
  const eased = 1 - (1 - share) ** 3;
  switch (way) {
    case "none":
      return HERE;
    case "type":
      return HERE;
    case "fade":
      return { ...HERE, opacity: share };
    case "rise":
      return { ...HERE, opacity: eased, down: 0.6 * (1 - eased) };
    case "wipe":
      return { ...HERE, shown: share };
    case "blur":
      return { ...HERE, opacity: eased, blur: 0.35 * (1 - eased) };
  }
}

// src/core/frame/frame-plan.ts
var CLIP_FRAMES_PER_SECOND = 30;
var CLIP_RATE = { frames: CLIP_FRAMES_PER_SECOND, seconds: 1 };

// src/core/frame/plan-colours.ts
function fillAt(fill, now) {
  return fill.kind === "colour" ? { kind: "colour", colour: now(fill.colour) } : gradientAt(fill, now);
}
function gradientAt(gradient, now) {
  if (gradient.stops.every((stop) => typeof stop.colour === "string")) return gradient;
  return { ...gradient, stops: gradient.stops.map((stop) => ({ ...stop, colour: now(stop.colour) })) };
}
function styleAt(style, now) {
  const { colour, accent } = style;
  if (typeof colour !== "object" && typeof accent !== "object") return style;
  return {
    ...style,
    ...colour !== void 0 && { colour: now(colour) },
    ...accent !== void 0 && { accent: now(accent) }
  };
}

// src/core/frame/plan-crop.ts
function cropPlan(layer, facts2) {
  if (layer.kind !== "picture" || !layer.crop || facts2?.kind !== "picture") return null;
  return { framing: cropOn(facts2, layer.crop), ofWidthPx: facts2.widthPx, ofHeightPx: facts2.heightPx };
}

// src/core/frame/plan-light.ts
function lightAt(light, at3, facts2) {
  if (!light) return null;
  const points = light.levels === "automatic" ? facts2?.kind === "picture" ? facts2.tonePoints ?? null : null : light.levels ?? null;
  const values = {
    exposure: at3(light.exposure, 0),
    contrast: at3(light.contrast, 0),
    highlights: at3(light.highlights, 0),
    shadows: at3(light.shadows, 0),
    temperature: at3(light.temperature, 0),
    tint: at3(light.tint, 0),
    saturation: at3(light.saturation, 0),
    vibrance: at3(light.vibrance, 0),
    black: points?.black ?? 0,
    white: points?.white ?? 1,
    blackAndWhite: at3(light.blackAndWhite, 0),
    sepia: at3(light.sepia, 0),
    paling: at3(light.paling, 0),
    toneColour: light.tone?.colour ?? "#000000",
    toneAmount: at3(light.tone?.amount, 0)
  };
  const moves = [
    light.exposure,
    light.contrast,
    light.highlights,
    light.shadows,
    light.temperature,
    light.tint,
    light.saturation,
    light.vibrance,
    light.blackAndWhite,
    light.sepia,
    light.paling,
    light.tone?.amount
  ].some((channel2) => typeof channel2 === "object");
  const plan = { values, moves, sharpen: light.sharpen ?? 0, print: light.print ?? null, redEyes: light.redEyes ?? [] };
  return changesNothing(plan) ? null : plan;
}
function changesNothing(plan) {
  const { values } = plan;
  const still = [
    "exposure",
    "contrast",
    "highlights",
    "shadows",
    "temperature",
    "tint",
    "saturation",
    "vibrance",
    "black",
    "blackAndWhite",
    "sepia",
    "paling",
    "toneAmount"
  ].every((name) => values[name] === 0);
  return still && values.white === 1 && !plan.moves && plan.sharpen === 0 && !plan.print && plan.redEyes.length === 0;
}

// src/core/frame/plan-content.ts
function planContent(moment, layer, toScreen, away) {
  const { around: around2 } = moment;
  switch (layer.kind) {
    case "picture":
      return away ? backOf(moment, layer, toScreen) : frontOf(moment, layer, toScreen);
    case "drawing": {
      const light = lightAt(layer.light, moment.at, around2.facts.get(layer.assetId));
      return standingPicture(moment, layer.assetId, aspectOf(moment, layer), toScreen, layer.id, light, fitFraming);
    }
    case "clip":
      return clipContent(moment, layer, toScreen);
    case "words":
      return wordsContent(moment, layer);
    case "shape":
      return {
        kind: "painted",
        shape: layer.shape,
        fill: fillAt(layer.fill, moment.colour),
        bitmap: bitmapFor(around2, layer.id, toScreen)
      };
    case "gradient":
      return {
        kind: "painted",
        shape: { kind: "rectangle" },
        fill: gradientAt(layer.gradient, moment.colour),
        bitmap: bitmapFor(around2, layer.id, toScreen)
      };
    case "solid":
      return plainContent(moment.colour(layer.colour));
    default:
      return unreachable(layer);
  }
}
function plainContent(colour) {
  return {
    kind: "painted",
    shape: { kind: "rectangle" },
    fill: { kind: "colour", colour },
    bitmap: { widthPx: 4, heightPx: 4 }
  };
}
function standingPicture({ around: around2 }, assetId2, boxAspect, toScreen, key2, light, framed2 = fillFraming) {
  const facts2 = around2.facts.get(assetId2);
  if (!facts2 || facts2.kind === "sound") return null;
  const framing = framed2(facts2.widthPx / facts2.heightPx, boxAspect);
  return {
    kind: "picture",
    assetId: assetId2,
    crop: null,
    framing,
    sizes: sizes(around2, facts2, framing, framing.width, toScreen, key2),
    light
  };
}
function frontOf({ around: around2, poses, at: at3 }, layer, toScreen) {
  const known = around2.facts.get(layer.assetId);
  const facts2 = factsInUse(layer, known);
  const framing = poses.framing(layer);
  const move = around2.moves.get(layer.id);
  if (!framing || !move || !facts2 || facts2.kind === "sound") return null;
  const tightest = Math.min(move.first.width, move.last.width);
  return {
    kind: "picture",
    assetId: layer.assetId,
    crop: cropPlan(layer, known),
    framing,
    sizes: sizes(around2, facts2, framing, tightest, toScreen, layer.id),
    light: lightAt(layer.light, at3, known)
  };
}
function backOf(moment, layer, toScreen) {
  const light = lightAt(layer.light, moment.at, moment.around.facts.get(layer.assetId));
  return standingPicture(moment, layer.back.assetId, aspectOf(moment, layer), toScreen, `${layer.id} back`, light);
}
function clipContent({ around: around2, poses, at: at3, offsetMs }, layer, toScreen) {
  const facts2 = around2.facts.get(layer.assetId);
  const framing = poses.framing(layer);
  if (facts2?.kind !== "clip" || !framing) return null;
  const lastFrame = Math.max(0, frameAtMoment(facts2.lengthMs, CLIP_RATE) - 1);
  const clipFrame = frameAtMoment(layer.trimStartMs + offsetMs * (layer.speed ?? 1), CLIP_RATE);
  return {
    kind: "clip",
    assetId: layer.assetId,
    framing,
    clipFrame: Math.min(lastFrame, clipFrame),
    sizes: sizes(around2, facts2, framing, framing.width, toScreen, layer.id).slice(0, 1),
    light: lightAt(layer.light, at3, facts2)
  };
}
function wordsContent({ around: around2, offsetMs, colour }, layer) {
  const { title, subtitle, place, style = {}, travel } = layer;
  if (title.trim() === "" && subtitle.trim() === "") return null;
  const passage = planPassage(layer, around2.span, offsetMs);
  if (passage.entrance.share <= 0 && passage.travel === null || passage.exit.share >= 1) return null;
  const crawls = travel?.kind === "crawl";
  const unit = crawls ? "word" : travel ? "line" : finerUnit(passage.entrance.by, passage.exit.by);
  return {
    kind: "words",
    look: { title, subtitle, place, style: styleAt(style, colour), unit, crawls, rolls: travel?.kind === "roll" },
    passage
  };
}
function sizes(around2, facts2, framing, tightestWidth, toScreen, key2) {
  const now = wantedWidthPx(shownWidthPx(toScreen), framing.width);
  const largest = wantedWidthPx(largestOnScreen(around2, key2, toScreen).widthPx, tightestWidth);
  return sizesFor(facts2, Math.max(now, largest), now);
}
function aspectOf({ poses }, layer) {
  const { widthPx, heightPx } = poses.size(layer);
  return widthPx / heightPx;
}

// src/core/frame/plan-edge.ts
function edgeAt(edge, at3, box2, frame, around2 = WHOLE) {
  const grain = around2 === WHOLE ? 1 : 16;
  const size = (share, px) => Math.max(4, grain * Math.ceil(share * px / grain));
  const bitmap = {
    widthPx: size(around2.right - around2.left, box2.widthPx),
    heightPx: size(around2.bottom - around2.top, box2.heightPx)
  };
  const thousandths = (value) => Math.round(Math.min(0.5, Math.max(0, value)) * 1e3) / 1e3;
  const shape3 = edge.shape ?? null;
  const feather = thousandths(at3(edge.feather, 0));
  const width = edge.outline ? thousandths(at3(edge.outline.width, 0)) : 0;
  const strength = edge.shadow ? Math.min(1, Math.max(0, at3(edge.shadow.opacity, 0))) : 0;
  const plan = {
    around: around2,
    stencil: shape3 || feather > 0 ? { shape: shape3, feather, inset: shape3 && feather === 0 ? underOutline(edge, width) : 0, bitmap } : null,
    outline: edge.outline && width > 0 ? { shape: shape3, feather: 0, inset: 0, bitmap, colour: edge.outline.colour, width, where: edge.outline.where } : null,
    shadow: edge.shadow && strength > 0 ? {
      xPx: at3(edge.shadow.x, 0) * frame.heightPx,
      yPx: at3(edge.shadow.y, 0) * frame.heightPx,
      blurPx: Math.min(0.1, Math.max(0, at3(edge.shadow.softness, 0))) * frame.heightPx,
      colour: edge.shadow.colour,
      opacity: strength
    } : null
  };
  return plan.stencil || plan.outline || plan.shadow ? plan : null;
}
function underOutline(edge, width) {
  if (!edge.outline || edge.outline.where === "outside") return 0;
  return edge.outline.where === "inside" ? width / 2 : width / 4;
}
var WHOLE = { left: 0, top: 0, right: 1, bottom: 1 };
function coveredPart({ x, y, width, height, turnDegrees }) {
  const [left, top] = [Math.max(0, 0.5 - x / width), Math.max(0, 0.5 - y / height)];
  const [right2, bottom2] = [Math.min(1, 0.5 + (1 - x) / width), Math.min(1, 0.5 + (1 - y) / height)];
  const slack = 1e-6;
  if (turnDegrees !== 0 || left >= right2 || top >= bottom2 || left < slack && top < slack && right2 > 1 - slack && bottom2 > 1 - slack)
    return WHOLE;
  return { left, top, right: right2, bottom: bottom2 };
}

// src/core/frame/polygon.ts
function cutPolygon(polygon, by) {
  const sense = Math.sign(area2(by));
  return by.reduce(
    (left, from, index) => {
      const to = by[(index + 1) % by.length];
      const [a, b] = [-sense * (to.y - from.y), sense * (to.x - from.x)];
      return halfOf(left, { a, b, c: -(a * from.x + b * from.y) });
    },
    [...polygon]
  );
}
function screenEdges(polygon, toScreen) {
  const points = screenPolygon(polygon, toScreen);
  if (!points) return null;
  const sense = Math.sign(area2(points));
  if (points.length < 3 || sense === 0) return null;
  const edges2 = points.flatMap((from, index) => {
    const to = points[(index + 1) % points.length];
    const length = Math.hypot(to.x - from.x, to.y - from.y);
    if (length < 1e-6) return [];
    const a = -sense * (to.y - from.y) / length;
    const b = sense * (to.x - from.x) / length;
    return [{ a, b, c: -(a * from.x + b * from.y) }];
  });
  return { edges: edges2, points };
}
function screenPolygon(polygon, toScreen) {
  const points = [];
  for (const point of polygon) {
    const seen2 = mapped(toScreen, point.x, point.y);
    if (!(seen2.w > NEAREST)) return null;
    points.push({ x: seen2.x, y: seen2.y });
  }
  return points;
}
function halfOf(polygon, { a, b, c: c2 }) {
  const side = (point) => a * point.x + b * point.y + c2;
  const out2 = [];
  polygon.forEach((point, index) => {
    const next = polygon[(index + 1) % polygon.length];
    const [here, there] = [side(point), side(next)];
    if (here >= 0) out2.push(point);
    if (here > 0 && there < 0 || here < 0 && there > 0) {
      const share = here / (here - there);
      out2.push({ x: point.x + (next.x - point.x) * share, y: point.y + (next.y - point.y) * share });
    }
  });
  return withoutDoubles(out2);
}
function cutOnScreen(polygon, toScreen, cuts) {
  const m = toScreen;
  return cuts.reduce(
    (left, { a, b, c: c2 }) => halfOf(left, {
      a: a * m[0] + b * m[3] + c2 * m[6],
      b: a * m[1] + b * m[4] + c2 * m[7],
      c: a * m[2] + b * m[5] + c2 * m[8]
    }),
    [...polygon]
  );
}
var NEAREST = 0.02;
function area2(polygon) {
  return polygon.reduce((sum, point, index) => {
    const next = polygon[(index + 1) % polygon.length];
    return sum + (point.x * next.y - next.x * point.y) / 2;
  }, 0);
}
function withoutDoubles(points) {
  return points.filter((point, index) => {
    const before = points[(index + points.length - 1) % points.length];
    return points.length < 2 || Math.abs(point.x - before.x) > 1e-9 || Math.abs(point.y - before.y) > 1e-9;
  });
}

// src/core/frame/space-order.ts
var TOUCHING_PX = 0.05;
var SMALLEST_OVERLAP_PX2 = 0.5;
var BESIDE_PX = 0.02;
var TUCKED_PX = 1;
var MOST_CUTS = 8;
var MOST_PIECES_A_PLANE = 6;
function farToNear(items, box2, eye) {
  const planes = items.map((item, index) => planeSeen(box2(item), eye, index));
  const pieces = planes.filter((plane2) => plane2 !== null);
  const most = MOST_PIECES_A_PLANE * pieces.length;
  const done2 = [];
  const waiting = [...pieces].reverse();
  for (let piece = waiting.pop(); piece; piece = waiting.pop()) {
    const cut = done2.length + waiting.length < most ? cutThrough(piece, done2) : null;
    if (cut) waiting.push(cut.near, cut.far);
    else done2.push(piece);
  }
  return sorted(done2, most).map(({ index, cuts }) => ({ item: items[index], cuts }));
}
function facesEye(box2, eye) {
  const corners = [inSpace(box2, 0, 0), inSpace(box2, 1, 0), inSpace(box2, 0, 1)];
  const across = minus(corners[1], corners[0]);
  const down = minus(corners[2], corners[0]);
  const normal = [
    across[1] * down[2] - across[2] * down[1],
    across[2] * down[0] - across[0] * down[2],
    across[0] * down[1] - across[1] * down[0]
  ];
  const from = minus([eye.x, eye.y, eye.distance], corners[0]);
  return from[0] * normal[0] + from[1] * normal[1] + from[2] * normal[2] > 0;
}
function planeSeen(box2, eye, index) {
  const toScreen = projected(box2, eye);
  const points = screenPolygon(WHOLE2, toScreen);
  const back = inverse3(toScreen);
  if (!points || !back || Math.abs(area2(points)) < SMALLEST_OVERLAP_PX2) return null;
  const middle = inSpace(box2, 0.5, 0.5);
  const nearness = { a: back[6], b: back[7], c: back[8] };
  return {
    index,
    points,
    bounds: boundsOf(points),
    nearness,
    ...reachOf(points, nearness),
    touching: TOUCHING_PX / eye.distance,
    away: Math.hypot(middle[0] - eye.x, middle[1] - eye.y, middle[2] - eye.distance),
    cuts: []
  };
}
var WHOLE2 = [
  { x: 0, y: 0 },
  { x: 1, y: 0 },
  { x: 1, y: 1 },
  { x: 0, y: 1 }
];
function compared(a, b) {
  if (a.bounds.right <= b.bounds.left || b.bounds.right <= a.bounds.left || a.bounds.bottom <= b.bounds.top || b.bounds.bottom <= a.bounds.top)
    return null;
  if (areApart(a.points, b.points) || areApart(b.points, a.points)) return null;
  const [least, most] = [a.farthest - b.nearest, a.nearest - b.farthest];
  if (least > a.touching || most < -a.touching) return { least, most };
  const shared2 = cutPolygon(a.points, b.points);
  if (shared2.length < 3 || Math.abs(area2(shared2)) < SMALLEST_OVERLAP_PX2) return null;
  const line = between2(a.nearness, b.nearness);
  const apart2 = shared2.map((point) => at2(line, point));
  return { least: Math.min(...apart2), most: Math.max(...apart2) };
}
function areApart(polygon, other) {
  const sense = Math.sign(area2(polygon));
  for (let index = 0; index < polygon.length; index += 1) {
    const from = polygon[index];
    const to = polygon[(index + 1) % polygon.length];
    const [a, b] = [-sense * (to.y - from.y), sense * (to.x - from.x)];
    const least = BESIDE_PX * Math.hypot(a, b);
    if (other.every((point) => a * (point.x - from.x) + b * (point.y - from.y) <= least)) return true;
  }
  return false;
}
function reachOf(points, nearness) {
  const corners = points.map((point) => at2(nearness, point));
  return { farthest: Math.min(...corners), nearest: Math.max(...corners) };
}
function cutThrough(piece, settled) {
  if (piece.cuts.length >= MOST_CUTS) return null;
  for (const other of settled) {
    if (other.index === piece.index) continue;
    const apart2 = compared(piece, other);
    if (!apart2 || apart2.least >= -piece.touching || apart2.most <= piece.touching) continue;
    const cut = cutAlong(piece, between2(piece.nearness, other.nearness));
    if (cut) return cut;
  }
  return null;
}
function cutAlong(piece, { a, b, c: c2 }) {
  const length = Math.hypot(a, b);
  if (!(length > 0)) return null;
  const line = { a: a / length, b: b / length, c: c2 / length };
  const back = { a: -line.a, b: -line.b, c: -line.c };
  const [near, far] = [halfOf(piece.points, line), halfOf(piece.points, back)];
  if (Math.abs(area2(near)) < SMALLEST_OVERLAP_PX2 || Math.abs(area2(far)) < SMALLEST_OVERLAP_PX2) return null;
  const part = (points, cut) => ({
    ...piece,
    points,
    bounds: boundsOf(points),
    ...reachOf(points, piece.nearness),
    cuts: [...piece.cuts, cut]
  });
  return { near: part(near, line), far: part(far, { ...back, c: back.c + TUCKED_PX }) };
}
function sorted(pieces, most) {
  const order2 = [...pieces].sort((a, b) => b.away - a.away || a.index - b.index);
  const out2 = [];
  const state = /* @__PURE__ */ new Map();
  const path3 = [];
  const behind = new Map(order2.map((piece) => [piece, []]));
  order2.forEach((one, index) => {
    for (const other of order2.slice(index + 1)) {
      const farther = fartherOf(one, other);
      if (farther) behind.get(farther === one ? other : one).push(farther);
    }
  });
  for (const piece of order2) {
    const ring2 = visit(piece);
    if (!ring2) continue;
    const opened = order2.length < most ? ringOpened(ring2) : null;
    if (opened) return sorted([...pieces.filter((one) => one !== opened.whole), ...opened.parts], most);
    ring2.forEach((one) => state.delete(one));
    path3.length = 0;
    for (const one of order2) if (state.get(one) !== "done") out2.push(one);
    return out2;
  }
  return out2;
  function visit(piece) {
    if (state.get(piece) === "done") return null;
    if (state.get(piece) === "open") return path3.slice(path3.indexOf(piece));
    state.set(piece, "open");
    path3.push(piece);
    for (const other of behind.get(piece)) {
      const ring2 = visit(other);
      if (ring2) return ring2;
    }
    path3.pop();
    state.set(piece, "done");
    out2.push(piece);
    return null;
  }
}
function fartherOf(one, other) {
  const apart2 = compared(one, other);
  if (!apart2) return null;
  if (apart2.least >= -one.touching && apart2.most <= one.touching) return one.index < other.index ? one : other;
  if (apart2.least >= -one.touching) return other;
  return apart2.most <= one.touching || -apart2.least > apart2.most ? one : other;
}
function ringOpened(ring2) {
  for (const [at3, piece] of ring2.entries()) {
    if (piece.cuts.length >= MOST_CUTS) continue;
    const [below, above] = [ring2[(at3 + 1) % ring2.length], ring2[(at3 + ring2.length - 1) % ring2.length]];
    for (const other of [below, above])
      for (const side of sidesOf(other.points)) {
        const cut = cutAlong(piece, side);
        if (!cut) continue;
        const parts = [cut.near, cut.far];
        if (parts.every((part) => compared(part, below) === null || compared(part, above) === null))
          return { whole: piece, parts };
      }
  }
  return null;
}
function sidesOf(points) {
  return points.map((from, index) => {
    const to = points[(index + 1) % points.length];
    const [a, b] = [from.y - to.y, to.x - from.x];
    return { a, b, c: -(a * from.x + b * from.y) };
  });
}
function between2(one, other) {
  return { a: one.a - other.a, b: one.b - other.b, c: one.c - other.c };
}
function at2({ a, b, c: c2 }, { x, y }) {
  return a * x + b * y + c2;
}
function boundsOf(points) {
  const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
  return { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) };
}
function minus(a, b) {
  return [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
}

// src/core/frame/view.ts
function viewInto({ around: around2, at: at3 }, space, { eye, shift }) {
  const { widthPx, heightPx } = around2.frame;
  const distance2 = Math.max(0.1, at3(space.distance, USUAL_DISTANCE)) * heightPx;
  const shifted2 = translation(-at3(space.x, 0) * widthPx, -at3(space.y, 0) * heightPx, at3(space.z, 0) * heightPx);
  const looks = [at3(space.turnDegrees, 0), at3(space.tiltXDegrees, 0), at3(space.tiltYDegrees, 0)];
  const camera = looks.every((angle) => angle === 0) ? shifted2 : times4(turnedAbout(eye, distance2, looks), shifted2);
  return { eye: { ...eye, distance: distance2 }, shift: shift ? times4(camera, shift) : camera };
}
function turnedAbout(eye, distance2, [turn2, up, right2]) {
  const there = translation(eye.x, eye.y, distance2);
  const back = translation(-eye.x, -eye.y, -distance2);
  return times4(there, times4(times4(rotation(-turn2, 0, 0), rotation(0, up, right2)), back));
}

// src/core/frame/plan-layers.ts
function masksOf(layers, into = /* @__PURE__ */ new Map()) {
  const add2 = (target, mask) => into.set(target, [...into.get(target) ?? [], mask]);
  layers.forEach((layer, index) => {
    if (layer.kind === "group") masksOf(layer.layers, into);
    if (!layer.mask || layer.hidden) return;
    if (layer.mask.cuts !== "below") return layer.mask.cuts.forEach((id) => add2(id, layer));
    const below = layers.slice(0, index).reverse().find((other) => !other.mask);
    if (below) add2(below.id, layer);
  });
  return into;
}
function planLayers(around2, offsetMs) {
  const moment = slideMoment(around2, offsetMs);
  const view = { eye: moment.usualEye, shift: null };
  return seen(pile(moment, around2.slide.layers, view), view.eye);
}
function seen(placed2, eye) {
  return placed2.flatMap(({ box: box2, plan, cuts = [] }) => {
    const planned = plan(projected(box2, eye));
    if (!planned) return [];
    return [cuts.length === 0 ? planned : { ...planned, plain: false, cuts: [...planned.cuts, ...cuts] }];
  });
}
function pile(moment, layers, view) {
  return layers.filter((layer) => !layer.hidden && !layer.mask).flatMap((layer) => placedOf(moment, layer, view));
}
function placedOf(moment, layer, view) {
  const own = moment.poses.box(layer);
  const box2 = view.shift ? times4(view.shift, own) : own;
  if (layer.kind === "group") return placedGroup(moment, layer, box2, view);
  if (layer.kind === "box") return placedFaces(moment, layer, box2, view.eye);
  return [{ box: box2, plan: (toScreen) => singlePlan(moment, layer, toScreen, facesEye(box2, view.eye)) }];
}
function placedGroup(moment, layer, box2, view) {
  const { space } = layer;
  const inside = space ? viewInto(moment, space, view) : view;
  const inner = () => {
    const placed2 = pile(moment, layer.layers, inside);
    if (!space) return placed2;
    return farToNear(placed2, (one) => one.box, inside.eye).map(({ item, cuts }) => ({ ...item, cuts }));
  };
  const parts = partsOf(moment, layer, IDENTITY3);
  if (needsNoCanvas(parts) && !space) return inner();
  if (needsNoCanvas(parts) && view.shift === null)
    return seen(inner(), inside.eye).map((planned) => ({ box: box2, plan: () => planned }));
  return [
    {
      box: box2,
      plan: (toScreen) => ({
        ...parts,
        content: { kind: "group", layers: seen(inner(), inside.eye) },
        toScreen,
        plain: false
      })
    }
  ];
}
function needsNoCanvas({ opacity, blurPx, blend, edge, masks, crop }) {
  const cropped = crop.left > 0 || crop.top > 0 || crop.right > 0 || crop.bottom > 0;
  return opacity >= 1 && blurPx === 0 && blend === "normal" && !edge && masks.length === 0 && !cropped;
}
function placedFaces(moment, layer, box2, eye) {
  const depthPx = moment.at(layer.depth, 0) * moment.around.frame.heightPx;
  return boxFaces(layer, box2, depthPx).filter((face) => facesEye(face.box, eye)).map(({ box: stands, face, aspect, side }) => ({
    box: stands,
    plan: (toScreen) => {
      const parts = partsOf(moment, layer, toScreen);
      const content = face.kind === "colour" ? plainContent(face.colour) : standingPicture(moment, face.assetId, aspect, toScreen, `${layer.id} ${side}`, null);
      return content && parts.opacity > 0 ? { ...parts, content, toScreen, plain: false } : null;
    }
  }));
}
function singlePlan(moment, layer, toScreen, isFront) {
  const parts = partsOf(moment, layer, toScreen);
  if (parts.opacity <= 0) return null;
  const away = layer.kind === "picture" && layer.back !== void 0 && !isFront;
  const flip = layer.kind === "picture" || layer.kind === "clip" ? layer.flip : void 0;
  const across = away !== Boolean(flip?.across);
  const outTo = flipped(across ? mirrored(toScreen) : toScreen, Boolean(flip?.down));
  const content = planContent(moment, layer, outTo, away);
  return content && { ...parts, content, toScreen: outTo, plain: isPlain(layer, parts, outTo, moment) };
}
function isPlain(layer, parts, toScreen, { around: around2 }) {
  const stands = !layer.channels || Object.keys(layer.channels).every((name) => name === "opacity");
  return stands && !layer.tether && parts.masks.length === 0 && !parts.edge && parts.blend === "normal" && parts.vignette === 0 && isFrame(toScreen, around2.frame);
}
function partsOf(moment, layer, toScreen) {
  const { around: around2, poses, at: at3 } = moment;
  const channels2 = layer.channels ?? {};
  const share = (channel2) => Math.min(1, Math.max(0, at3(channel2, 0)));
  const covered = layer.kind === "picture" || layer.kind === "clip" ? coveredPart(poses.framing(layer) ?? WHOLE_FRAMING) : void 0;
  return {
    crop: {
      left: share(channels2.cropLeft),
      top: share(channels2.cropTop),
      right: share(channels2.cropRight),
      bottom: share(channels2.cropBottom)
    },
    cuts: [],
    opacity: poses.opacity(layer),
    blurPx: Math.min(0.1, Math.max(0, at3(channels2.blur, 0))) * around2.frame.heightPx,
    blend: layer.blend ?? "normal",
    edge: layer.edge ? edgeAt(layer.edge, at3, bitmapFor(around2, layer.id, toScreen), around2.frame, covered) : null,
    vignette: share(isLit(layer) ? layer.light?.vignette : void 0),
    masks: (around2.masks.get(layer.id) ?? []).map((mask) => maskPlan(moment, mask))
  };
}
function maskPlan(moment, layer) {
  const { around: around2, at: at3, usualEye: usualEye2 } = moment;
  const mask = layer.mask;
  const { mask: _cuts, ...cutting } = layer;
  const inside = seen(placedOf(moment, cutting, { eye: usualEye2, shift: null }), usualEye2);
  return {
    layer: inside.length === 1 ? inside[0] : { ...BARE, content: { kind: "group", layers: inside }, toScreen: frameToScreen(around2.frame) },
    by: mask.by,
    inverted: mask.inverted ?? false,
    featherPx: Math.min(0.1, Math.max(0, at3(mask.feather, 0))) * around2.frame.heightPx
  };
}
var WHOLE_FRAMING = { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 };
var IDENTITY3 = [1, 0, 0, 0, 1, 0, 0, 0, 1];
var BARE = {
  plain: false,
  crop: { left: 0, top: 0, right: 0, bottom: 0 },
  cuts: [],
  opacity: 1,
  blurPx: 0,
  blend: "normal",
  edge: null,
  vignette: 0,
  masks: []
};

// src/core/frame/plan-caption.ts
function planCaption({ show, captions }, momentMs, frame) {
  const shown = captions.findLast(({ startMs }) => startMs <= momentMs);
  if (!shown || shown.endMs <= momentMs) return [];
  const look2 = { ...USUAL_CAPTION_LOOK, ...show.captionLook };
  const style = {
    font: look2.font,
    weight: 500,
    size: look2.size,
    colour: look2.colour,
    align: "centre",
    measure: 0.86,
    lineSpacing: 1.1,
    shadow: look2.box > 0 ? "none" : { colour: "#000000", opacity: 0.8, softness: 0.12, x: 0, y: 0.03 },
    ...look2.box > 0 && { box: { colour: "#171513", opacity: look2.box, padding: 0.35, radius: 0.14 } }
  };
  return [
    {
      content: {
        kind: "words",
        look: {
          title: shown.text,
          subtitle: "",
          place: look2.place,
          style,
          unit: "all",
          crawls: false,
          rolls: false
        },
        passage: {
          entrance: { way: "none", by: "all", share: 1 },
          exit: { way: "none", by: "all", share: 0 },
          travel: null
        }
      },
      ...BARE,
      plain: true,
      toScreen: frameToScreen(frame)
    }
  ];
}

// src/core/frame/plan-watermark.ts
var MARGIN = 0.045;
var WHOLE3 = { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 };
function planWatermark({ show, facts: facts2 }, frame) {
  const known = show.watermark && facts2.get(show.watermark.assetId);
  if (!show.watermark || known?.kind !== "picture") return [];
  const { place, size, opacity, assetId: assetId2 } = show.watermark;
  const short = Math.min(frame.widthPx, frame.heightPx);
  const scale = size * short / Math.max(known.widthPx, known.heightPx);
  const [widthPx, heightPx] = [known.widthPx * scale, known.heightPx * scale];
  const [across, down] = anchorOf(place);
  const leftPx = MARGIN * short + (frame.widthPx - 2 * MARGIN * short - widthPx) * across;
  const topPx = MARGIN * short + (frame.heightPx - 2 * MARGIN * short - heightPx) * down;
  return [
    {
      ...BARE,
      content: {
        kind: "picture",
        assetId: assetId2,
        crop: null,
        framing: WHOLE3,
        sizes: [{ size: pictureSizeFor(known, { first: WHOLE3, last: WHOLE3 }, { widthPx }), share: 1 }],
        light: null
      },
      plain: false,
      opacity,
      toScreen: boxToScreen(leftPx, topPx, widthPx, heightPx)
    }
  ];
}

// src/core/frame/plan-frame.ts
function prepareShow(show, facts2) {
  const spans = slideSpans(show.slides);
  return {
    show,
    facts: facts2,
    spans,
    seenFromMs: spans.map(({ startMs }) => momentSeen(startMs, show.frame.rate)),
    moves: planMoves(show, facts2, spans),
    lengthMs: showLengthMs(show),
    captions: show.captionLook ? captionsOfShow(show, facts2, show.captionLook.language ?? show.language ?? USUAL_LANGUAGE) : [],
    surroundings: /* @__PURE__ */ new Map()
  };
}
var INK = "#211d19";
var PAPER = "#f4f0e8";
var USUAL_BLUR = { amount: 0.065, darkness: 0.38 };
function planFrame(prepared, momentMs, frame) {
  const index = seenIndexAt(prepared, momentMs);
  if (index === null) return null;
  const span = prepared.spans[index];
  const offsetMs = Math.max(0, momentMs - prepared.seenFromMs[index]);
  const slide3 = planSlide(prepared, index, offsetMs, frame);
  const size = { widthPx: frame.widthPx, heightPx: frame.heightPx, over: [...planWatermark(prepared, frame), ...planCaption(prepared, momentMs, frame)] };
  const { transition, id } = prepared.show.slides[index];
  if (offsetMs >= span.transitionMs || transition.kind === "cut") return { ...size, slide: slide3, incoming: null };
  return {
    ...size,
    slide: planSlide(prepared, index - 1, momentMs - prepared.seenFromMs[index - 1], frame),
    incoming: {
      slide: slide3,
      transition: planTransition(transition, id),
      progress: transitionProgress(transition, id, offsetMs / span.transitionMs)
    }
  };
}
function seenIndexAt({ spans, seenFromMs }, momentMs) {
  const index = slideIndexAt(spans, momentMs);
  return index !== null && index + 1 < spans.length && seenFromMs[index + 1] <= momentMs ? index + 1 : index;
}
function planSlide(prepared, index, offsetMs, frame) {
  const around2 = surroundingsOf(prepared, index, frame);
  const layers = planLayers(around2, offsetMs);
  return { slideId: around2.slide.id, backing: planBacking(around2, layers), layers };
}
function surroundingsOf(prepared, index, frame) {
  const key2 = `${index} ${frame.widthPx} ${frame.heightPx}`;
  const known = prepared.surroundings.get(key2);
  if (known) return known;
  const slide3 = prepared.show.slides[index];
  const span = prepared.spans[index];
  const around2 = {
    slide: slide3,
    span,
    frame,
    facts: prepared.facts,
    moves: prepared.moves.get(slide3.id) ?? NO_MOVES,
    seenMs: span.leavesMs - span.startMs,
    masks: masksOf(slide3.layers),
    largest: /* @__PURE__ */ new Map()
  };
  prepared.surroundings.set(key2, around2);
  return around2;
}
function planBacking({ slide: slide3, facts: facts2, moves, frame }, layers) {
  const { backing } = slide3;
  switch (backing.kind) {
    case "colour":
    case "gradient":
      return backing;
    case "picture": {
      const known = facts2.get(backing.assetId);
      if (known?.kind !== "picture") return { kind: "colour", colour: INK };
      const framing = fillFraming(known.widthPx / known.heightPx, frame.widthPx / frame.heightPx);
      return {
        kind: "picture",
        assetId: backing.assetId,
        framing,
        size: pictureSizeFor(known, { first: framing, last: framing }, frame)
      };
    }
    case "automatic":
    case "blurred":
      return planBlurred(slide3, facts2, moves, layers, backing.kind === "blurred" ? backing : null);
    default:
      return unreachable(backing);
  }
}
function planBlurred(slide3, facts2, moves, layers, own) {
  const main = mainLayerOf(slide3);
  const known = main && factsInUse(main, facts2.get(main.assetId));
  if (!main || !known || known.kind === "sound" || !moves.has(main.id)) return { kind: "colour", colour: INK };
  if (!own) {
    if (known.kind === "picture" && known.hasTransparency)
      return { kind: "colour", colour: known.brightness > 0.45 ? INK : PAPER };
    const lowest = layers[0];
    if (lowest && coversFrame(lowest, main.assetId)) return { kind: "hidden" };
  }
  const { amount, darkness } = own ?? USUAL_BLUR;
  return {
    kind: "blurred",
    assetId: main.assetId,
    isClip: main.kind === "clip",
    aspect: known.widthPx / known.heightPx,
    crop: cropPlan(main, facts2.get(main.assetId)),
    amount,
    darkness
  };
}
function coversFrame(layer, assetId2) {
  const { content } = layer;
  if (!layer.plain || layer.opacity < 1 || content.kind !== "picture" && content.kind !== "clip" || content.assetId !== assetId2)
    return false;
  const slack = 1e-9;
  const { framing } = content;
  return framing.turnDegrees === 0 && Math.abs(framing.x - 0.5) + framing.width / 2 <= 0.5 + slack && Math.abs(framing.y - 0.5) + framing.height / 2 <= 0.5 + slack;
}

// src/core/show/ids.ts
var slideId = (text2) => text2;
var layerId = (text2) => text2;
var cueId = (text2) => text2;
var assetId = (text2) => text2;

// src/core/show/pile.ts
function layerIn(pile2, id) {
  for (const layer of everyLayer(pile2)) if (layer.id === id) return layer;
  return null;
}
function withChanged(pile2, wanted, change2) {
  return mapped2(pile2, (layer) => wanted.has(layer.id) ? change2(layer, wanted.get(layer.id)) : layer);
}
function mapped2(pile2, change2) {
  const changed2 = pile2.map((layer) => {
    const inner = layer.kind === "group" ? mapped2(layer.layers, change2) : null;
    return change2(layer.kind === "group" && inner !== layer.layers ? { ...layer, layers: inner } : layer);
  });
  return changed2.some((layer, index) => layer !== pile2[index]) ? changed2 : pile2;
}
function layersTakenOut(pile2, ids) {
  const runs = [];
  const walk = (layers, into) => {
    const rest2 = [];
    let run = null;
    for (const layer of layers) {
      const leaves = ids.has(layer.id);
      if (leaves && !run) runs.push({ into, aboveId: rest2.at(-1)?.id ?? null, layers: run = [] });
      if (!leaves) run = null;
      const inner = layer.kind === "group" ? walk(layer.layers, layer.id) : null;
      const left = layer.kind === "group" && inner !== layer.layers ? { ...layer, layers: inner } : layer;
      (leaves ? run : rest2).push(left);
    }
    return rest2.length === layers.length && rest2.every((layer, index) => layer === layers[index]) ? layers : rest2;
  };
  const rest = walk(pile2, null);
  return runs.length > 0 ? { rest, runs } : null;
}
function layersPutIn(pile2, runs) {
  return runs.reduce((into, run) => putInRun(into, run), pile2);
}
function putInRun(pile2, { into, aboveId, layers }) {
  const group = into === null ? null : layerIn(pile2, into);
  if (into !== null && group?.kind !== "group") return [...pile2, ...layers];
  if (group?.kind !== "group") return putOnto(pile2, aboveId, layers);
  return withChanged(
    pile2,
    /* @__PURE__ */ new Map([[group.id, null]]),
    (layer) => layer.kind === "group" ? { ...layer, layers: putOnto(layer.layers, aboveId, layers) } : layer
  );
}
function putOnto(pile2, aboveId, layers) {
  const found = pile2.findIndex((layer) => layer.id === aboveId);
  const at3 = aboveId === null ? 0 : found < 0 ? pile2.length : found + 1;
  return [...pile2.slice(0, at3), ...layers, ...pile2.slice(at3)];
}

// src/core/builds/loupe.ts
var USUAL_LOUPE = {
  enlarges: 2,
  across: 0.42,
  rim: 0.012,
  rimColour: "#fcfaf5",
  restMs: 900,
  glideMs: 1100,
  beginMs: 700
};
var COMES_MS = 500;
var SMALL = 0.3;
var WHOLE4 = { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 };
function loupeNeedsMs({ places: places2, restMs, glideMs, beginMs }) {
  return beginMs + 2 * COMES_MS + places2.length * restMs + (places2.length - 1) * glideMs;
}
function faultOfLoupe(around2, base2) {
  if (base2.kind !== "picture" && base2.kind !== "clip") return "A loupe lies on a picture or a clip: choose one.";
  if (!around2.moves.has(base2.id)) return "That picture\u2019s file is not there, so there is nothing to enlarge.";
  if (parentsOf(around2.slide.layers).has(base2.id))
    return "That picture lies in a group. Take it out of the group first.";
  const { tiltXDegrees, tiltYDegrees, z } = base2.channels ?? {};
  if (tiltXDegrees !== void 0 || tiltYDegrees !== void 0 || z !== void 0)
    return "That picture leans or stands nearer in space; a loupe lies flat. Take its tilt and nearness away first.";
  return null;
}
function loupe(around2, base2, plan, id) {
  const fault = faultOfLoupe(around2, base2);
  if (fault || base2.kind !== "picture" && base2.kind !== "clip") throw new RangeError(fault ?? "no picture");
  const { frame } = around2;
  const shown = pictureOnFrame(around2, base2);
  const at3 = (onPicture2) => {
    const { x, y } = mirroredBy(base2, onPicture2);
    const [px, py] = inSpace(shown, x, y);
    return { x: px / frame.widthPx, y: py / frame.heightPx };
  };
  const centre2 = at3({ x: 0.5, y: 0.5 });
  const visits = plan.places.map(at3);
  const path3 = (of) => travelled(visits.map(of), plan);
  const aspect = frame.heightPx / frame.widthPx;
  const [inner, outer] = [plan.across, plan.across + 2 * plan.rim];
  const place = { x: path3(({ x }) => x), y: path3(({ y }) => y) };
  const named2 = (part) => layerId(`${id}-${part}`);
  const rim = {
    kind: "shape",
    id: named2("rim"),
    name: "rim",
    shape: { kind: "ellipse" },
    fill: { kind: "colour", colour: plan.rimColour },
    channels: { ...place, width: grown(outer * aspect, plan), height: grown(outer, plan) },
    edge: { shadow: { x: 0, y: 0.012, softness: 0.02, colour: "#171513", opacity: 0.55 } }
  };
  const picture2 = enlarged(base2, named2("picture"), {
    x: path3(({ x }) => 0.5 + centre2.x - x),
    y: path3(({ y }) => 0.5 + centre2.y - y),
    width: Math.hypot(shown[0], shown[4]) / frame.widthPx,
    height: Math.hypot(shown[1], shown[5]) / frame.heightPx,
    turnDegrees: Math.atan2(shown[4], shown[0]) * 180 / Math.PI
  });
  const glass = {
    kind: "group",
    id: named2("glass"),
    name: "what it shows",
    channels: { ...place, width: plan.enlarges, height: plan.enlarges },
    layers: [picture2]
  };
  const cut = {
    kind: "shape",
    id: named2("cut"),
    name: "round cut-out",
    shape: { kind: "ellipse" },
    fill: { kind: "colour", colour: "#ffffff" },
    channels: { ...place, width: grown(inner * aspect, plan), height: grown(inner, plan) },
    mask: { by: "transparency", cuts: [glass.id] }
  };
  return {
    kind: "group",
    id,
    name: "Loupe",
    tether: { to: base2.id, position: true, size: true, turn: true },
    channels: { opacity: shownWhile(plan) },
    layers: [rim, glass, cut]
  };
}
function pictureOnFrame(around2, base2, offsetMs = 0) {
  const poses = layerPoses(around2, offsetMs);
  const facts2 = factsInUse(base2, around2.facts.get(base2.assetId));
  const aspect = facts2 && facts2.kind !== "sound" ? facts2.heightPx / facts2.widthPx : 1;
  const toBox = pictureToBox(poses.framing(base2) ?? WHOLE4, aspect);
  return times4(poses.box(base2), unmirrored(base2, toBox));
}
function mirroredBy({ flip }, { x, y }) {
  return { x: flip?.across ? 1 - x : x, y: flip?.down ? 1 - y : y };
}
function enlarged(base2, id, channels2) {
  const kept3 = { ...base2.light && { light: base2.light }, ...base2.flip && { flip: base2.flip } };
  if (base2.kind === "clip")
    return {
      kind: "clip",
      id,
      assetId: base2.assetId,
      trimStartMs: base2.trimStartMs,
      soundGainDb: -60,
      ...base2.speed !== void 0 && { speed: base2.speed },
      ...kept3,
      channels: channels2
    };
  return {
    kind: "picture",
    id,
    assetId: base2.assetId,
    move: { kind: "set", first: WHOLE4, last: WHOLE4 },
    ...base2.crop && { crop: base2.crop },
    ...kept3,
    channels: channels2
  };
}
function travelled(values, { restMs, glideMs, beginMs }) {
  const first = beginMs + COMES_MS;
  return {
    keys: values.flatMap((value, index) => {
      const from = first + index * (restMs + glideMs);
      return [
        { at: { tied: "start", ms: Math.round(from) }, value },
        { at: { tied: "start", ms: Math.round(from + restMs) }, value }
      ];
    })
  };
}
function grown(size, plan) {
  const gone = loupeNeedsMs(plan);
  const key2 = (ms, value, easing) => ({
    at: { tied: "start", ms: Math.round(ms) },
    value,
    ...easing && { easing }
  });
  return {
    keys: [
      key2(plan.beginMs, size * SMALL, "arrive"),
      key2(plan.beginMs + COMES_MS, size),
      key2(gone - COMES_MS, size, "set-off"),
      key2(gone, size * SMALL)
    ]
  };
}
function shownWhile(plan) {
  const gone = loupeNeedsMs(plan);
  const key2 = (ms, value) => ({
    at: { tied: "start", ms: Math.round(ms) },
    value,
    easing: "linear"
  });
  return {
    keys: [key2(plan.beginMs, 0), key2(plan.beginMs + COMES_MS / 2, 1), key2(gone - COMES_MS / 2, 1), key2(gone, 0)]
  };
}

// src/core/builds/places-found.ts
var MOST = 12;
var LOOK_AROUND = [
  { x: 0.3, y: 0.45 },
  { x: 0.5, y: 0.55 },
  { x: 0.7, y: 0.45 }
];
function placesFound(layer, facts2, rings) {
  const known = layer.kind === "picture" ? facts2.get(layer.assetId) : void 0;
  if (layer.kind !== "picture" || known?.kind !== "picture") return { places: LOOK_AROUND, from: "nothing" };
  const said = rings?.[layer.assetId];
  if (said && said.length > 0 && !layer.crop)
    return { places: inOrder(said.map(({ x, y }) => ({ x, y }))), from: "rings" };
  const focus = focusInUse(layer, known, void 0);
  if (focus && focus.whole.length > 0)
    return {
      places: inOrder(focus.whole.map((box2) => ({ x: box2.left + box2.width / 2, y: box2.top + box2.height / 2 }))),
      from: "faces"
    };
  if (focus) {
    const { left, top, width, height } = focus.about;
    return {
      places: [0.15, 0.5, 0.85].map((share) => ({ x: left + share * width, y: top + height / 2 })),
      from: "about"
    };
  }
  return { places: LOOK_AROUND, from: "nothing" };
}
function inOrder(places2) {
  return [...places2].sort((one, other) => one.x - other.x).slice(0, MOST);
}

// src/core/motion/held-move.ts
function withHeldMove(layer, planned) {
  if (layer.kind !== "picture" || layer.move.kind === "set" || !planned) return layer;
  return { ...layer, move: { kind: "set", first: planned.first, last: planned.last, ...planned.pace } };
}

// src/core/show/chosen.ts
var CHOOSERS = ["hand", "pace", "music", "voice", "look"];
var SLIDE_VALUES = ["length", "transition", "backing"];
var LAYER_VALUES = ["move", "words", "light"];
var CHOOSER = oneOf(CHOOSERS);
var CHOSEN = object({
  length: maybe(CHOOSER),
  transition: maybe(CHOOSER),
  backing: maybe(CHOOSER)
});
var LAYER_CHOSEN = object({
  move: maybe(CHOOSER),
  words: maybe(CHOOSER),
  light: maybe(CHOOSER)
});
function withChooser(of, value, by) {
  if ((of.chosen?.[value] ?? null) === by) return of;
  const { [value]: _before, ...others } = of.chosen ?? {};
  const chosen = by === null ? others : { ...others, [value]: by };
  const { chosen: _chosen, ...rest } = of;
  return Object.keys(chosen).length === 0 ? rest : { ...rest, chosen };
}

// src/core/show/shape.ts
var SHAPE_LIKE = /^[1-9]\d{0,4}:[1-9]\d{0,4}$/;
function frameOfShape(shape3, like2) {
  const [across, down] = shape3.split(":").map(Number);
  const short = Math.min(like2.widthPx, like2.heightPx);
  const long = 2 * Math.round(short * Math.max(across, down) / Math.min(across, down) / 2);
  return { ...like2, widthPx: across > down ? long : short, heightPx: down > across ? long : short };
}

// src/core/show/schemas/channel-schema.ts
var CURVE = object({
  bezier: checked(
    list(number(-10, 10), 4, 4),
    (points) => [points[0], points[2]].every((x) => x >= 0 && x <= 1) ? null : "the x of a curve\u2019s points must lie within 0\u20261"
  )
});
var NAMED = { when: "string", then: oneOf(EASING_NAMES) };
var PART = checked(
  object({
    of: either(NAMED, { when: "object", then: CURVE }),
    from: number(0, 1),
    to: number(0, 1)
  }),
  ({ from, to }) => from < to ? null : "the part of a curve must end after it begins"
);
var WHOLE_EASING = either(NAMED, { when: "object", then: CURVE });
var EASING = either(NAMED, { when: "object", has: "of", then: PART }, { when: "object", then: CURVE });
var FROM_AN_END = { ms: whole(0, LONGEST_SLIDE_MS) };
var KEY_TIME = {
  is: "kinds",
  by: "tied",
  kinds: { start: FROM_AN_END, end: FROM_AN_END, stretch: { share: number(0, 1) } }
};
var SLOPE = number(-STEEPEST, STEEPEST);
var SLOPES = object({ in: SLOPE, out: SLOPE });
var made = /* @__PURE__ */ new Map();
function channel(least, most) {
  const name = `${least} ${most}`;
  const known = made.get(name);
  if (known) return known;
  const key2 = object({
    at: KEY_TIME,
    value: number(least, most),
    easing: maybe(EASING),
    slopes: maybe(SLOPES)
  });
  const schema = either(
    { when: "number", then: number(least, most) },
    {
      when: "object",
      then: object({
        keys: list(key2, MOST_KEYS, 1),
        smooth: maybe(truth),
        still: maybe(number(least, most))
      })
    }
  );
  made.set(name, schema);
  return schema;
}
var COLOUR_CHANNEL = either(
  { when: "string", then: COLOUR },
  {
    when: "object",
    then: object({
      keys: list(object({ at: KEY_TIME, colour: COLOUR, easing: maybe(EASING) }), MOST_KEYS, 1),
      still: maybe(COLOUR)
    })
  }
);
var SHARE = channel(0, 1);
var AMOUNT = channel(-1, 1);

// src/core/show/schemas/edge-schema.ts
var EDGE = object({
  shape: maybe(kinds({ rounded: { radius: number(0, 0.5) }, ellipse: {}, free: { path: SVG_PATH } })),
  feather: maybe(channel(0, 0.5)),
  outline: maybe(
    object({
      width: maybe(channel(0, 0.5)),
      colour: COLOUR,
      where: oneOf(["inside", "centre", "outside"])
    })
  ),
  shadow: maybe(
    object({
      x: maybe(channel(-1, 1)),
      y: maybe(channel(-1, 1)),
      softness: maybe(channel(0, 0.1)),
      colour: COLOUR,
      opacity: maybe(SHARE)
    })
  )
});

// src/core/show/light.ts
var PRINT_EFFECTS = ["pencil", "ink-wash", "linocut", "watercolour", "poster"];

// src/core/show/schemas/light-schema.ts
var POINTS = checked(
  object({ black: number(0, 1), white: number(0, 1) }),
  ({ black, white: white2 }) => white2 > black ? null : "white must lie above black"
);
var LIGHT = object({
  exposure: maybe(channel(-4, 4)),
  contrast: maybe(AMOUNT),
  highlights: maybe(AMOUNT),
  shadows: maybe(AMOUNT),
  temperature: maybe(AMOUNT),
  tint: maybe(AMOUNT),
  saturation: maybe(AMOUNT),
  vibrance: maybe(AMOUNT),
  levels: maybe(either({ when: "string", then: oneOf(["automatic"]) }, { when: "object", then: POINTS })),
  blackAndWhite: maybe(SHARE),
  sepia: maybe(SHARE),
  paling: maybe(SHARE),
  tone: maybe(object({ colour: COLOUR, amount: maybe(SHARE) })),
  vignette: maybe(SHARE),
  sharpen: maybe(number(0, 1)),
  print: maybe(object({ kind: oneOf(PRINT_EFFECTS), strength: number(0, 1) })),
  redEyes: maybe(
    list(
      object({
        x: number(0, 1),
        y: number(0, 1),
        radius: number(5e-4, 0.5)
      }),
      100
    )
  )
});

// src/core/show/schemas/words-schema.ts
var PASSAGE = object({
  way: oneOf(WORDS_WAYS),
  by: oneOf(WORDS_UNITS),
  atMs: whole(0, LONGEST_SLIDE_MS),
  lengthMs: whole(0, LONGEST_SLIDE_MS)
});
var SHADOW = object({
  colour: COLOUR,
  opacity: number(0, 1),
  softness: number(0, 1),
  x: number(-1, 1),
  y: number(-1, 1)
});
var WORDS_STYLE = object({
  font: maybe(oneOf(FONT_NAMES)),
  subtitleFont: maybe(oneOf(FONT_NAMES)),
  weight: maybe(number(100, 900)),
  size: maybe(number(0.01, 0.5)),
  colour: maybe(COLOUR_CHANNEL),
  accent: maybe(COLOUR_CHANNEL),
  align: maybe(oneOf(["left", "centre", "right"])),
  letterSpacing: maybe(number(-0.2, 2)),
  lineSpacing: maybe(number(0.5, 4)),
  measure: maybe(number(0.1, 1)),
  room: maybe(number(0.02, 1)),
  box: maybe(
    object({
      colour: COLOUR,
      opacity: number(0, 1),
      padding: number(0, 5),
      radius: number(0, 5)
    })
  ),
  outline: maybe(object({ colour: COLOUR, width: number(0, 0.5) })),
  shadow: maybe(either({ when: "string", then: oneOf(["none"]) }, { when: "object", then: SHADOW }))
});
var WORDS_COME = object({ entrance: PASSAGE, exit: orNull(PASSAGE) });
var WORDS_PARTS = {
  title: text(LONGEST_WORDS_TITLE),
  subtitle: text(LONGEST_WORDS_SUBTITLE),
  place: oneOf(WORDS_PLACES),
  style: maybe(WORDS_STYLE),
  come: maybe(WORDS_COME),
  travel: maybe(
    object({
      kind: oneOf(["roll", "crawl"]),
      fromMs: whole(0, LONGEST_SLIDE_MS),
      lengthMs: orNull(whole(100, LONGEST_SLIDE_MS))
    })
  )
};

// src/core/show/schemas/layer-schema.ts
var FRAMING = object({
  x: number(-100, 100),
  y: number(-100, 100),
  width: number(1e-3, 100),
  height: number(1e-3, 100),
  turnDegrees: number(-3600, 3600)
});
var CROP = object({
  x: number(0, 1),
  y: number(0, 1),
  width: number(1e-4, 1e3),
  height: number(1e-4, 1e3),
  turnDegrees: number(-360, 360)
});
var LONGEST_REST_MS = 6e5;
var REST = whole(0, LONGEST_REST_MS);
var MOST_DEALS = 1e6;
var MOVE = kinds({
  automatic: { deal: maybe(whole(0, MOST_DEALS)) },
  still: {},
  set: {
    first: FRAMING,
    last: FRAMING,
    easing: maybe(oneOf(MOVE_EASINGS)),
    beforeMs: maybe(REST),
    afterMs: maybe(REST),
    middle: maybe(object({ framing: FRAMING, at: number(0.05, 0.95) }))
  }
});
var CHANNEL_BOUNDS = {
  x: [-100, 100],
  y: [-100, 100],
  width: [0, 100],
  height: [0, 100],
  turnDegrees: [-36e3, 36e3],
  tiltXDegrees: [-36e3, 36e3],
  tiltYDegrees: [-36e3, 36e3],
  z: [-100, 100],
  opacity: [0, 1],
  blur: [0, 0.1],
  cropLeft: [0, 1],
  cropTop: [0, 1],
  cropRight: [0, 1],
  cropBottom: [0, 1]
};
var CHANNELS = Object.fromEntries(
  Object.entries(CHANNEL_BOUNDS).map(([name, [least, most]]) => [name, maybe(channel(least, most))])
);
var MASK = object({
  by: oneOf(["brightness", "transparency"]),
  inverted: maybe(truth),
  feather: maybe(channel(0, 0.1)),
  // A mask whose layers have all been removed cuts nothing, and is still not seen itself.
  cuts: either({ when: "string", then: oneOf(["below"]) }, { when: "object", then: list(ID, MOST_LAYERS) })
});
var TETHER = object({
  to: ID,
  position: maybe(truth),
  size: maybe(truth),
  along: maybe(oneOf(["x", "y"])),
  turn: maybe(truth),
  tilt: maybe(truth),
  opacity: maybe(truth)
});
var LAYER_PROPERTIES = {
  name: maybe(text(LONGEST_NAME)),
  hidden: maybe(truth),
  locked: maybe(truth),
  blend: maybe(oneOf(BLEND_MODES)),
  mask: maybe(MASK),
  tether: maybe(TETHER)
};
var SHAPE_NAME = {
  is: "text",
  least: 3,
  most: 11,
  like: { pattern: SHAPE_LIKE, says: "must be a shape such as 16:9", samples: ["16:9", "1:1"] }
};
var SHAPE_CORRECTION = object({
  crop: maybe(CROP),
  move: maybe(MOVE),
  place: maybe(oneOf(WORDS_PLACES)),
  hidden: maybe(truth)
});
var PARTS = {
  id: ID,
  ...LAYER_PROPERTIES,
  channels: maybe(object(CHANNELS)),
  edge: maybe(EDGE),
  shapes: maybe(record(SHAPE_NAME, SHAPE_CORRECTION, MOST_SHAPES, 1)),
  chosen: maybe(LAYER_CHOSEN),
  bare: maybe(
    object({ move: maybe(MOVE), style: maybe(orNull(WORDS_STYLE)), come: maybe(orNull(WORDS_COME)) })
  )
};
var LIT = { ...PARTS, light: maybe(LIGHT) };
var gradientParts = (colour) => ({
  angleDegrees: maybe(number(-36e3, 36e3)),
  stops: checked(
    list(object({ at: number(0, 1), colour, opacity: maybe(number(0, 1)) }), 64, 2),
    (stops) => stops.every((stop, index) => index === 0 || stop.at > stops[index - 1].at) ? null : "stops must be in rising order"
  )
});
var gradients = (parts) => ({ linear: parts, radial: parts, conic: parts });
var STILL_GRADIENT = { is: "kinds", by: "kind", kinds: gradients(gradientParts(COLOUR)) };
var GRADIENTS = gradients(gradientParts(COLOUR_CHANNEL));
var GRADIENT = { is: "kinds", by: "kind", kinds: GRADIENTS };
var FILL = kinds({ colour: { colour: COLOUR_CHANNEL }, ...GRADIENTS });
var SHAPE = kinds({
  rectangle: { radius: maybe(number(0, 0.5)) },
  ellipse: {},
  polygon: { sides: whole(3, 60) },
  star: { points: whole(3, 60), depth: number(0, 1) },
  free: { path: SVG_PATH }
});
var FLIP = maybe(object({ across: maybe(truth), down: maybe(truth) }));
var FACE = kinds({ picture: { assetId: HASH }, colour: { colour: COLOUR } });
var FACES = object(Object.fromEntries(BOX_SIDES.map((side) => [side, FACE])));
var LAYER = kinds({
  picture: {
    ...LIT,
    assetId: HASH,
    move: MOVE,
    crop: maybe(CROP),
    flip: FLIP,
    back: maybe(object({ assetId: HASH }))
  },
  clip: {
    ...LIT,
    assetId: HASH,
    trimStartMs: whole(0, LONGEST_SLIDE_MS),
    soundGainDb: DECIBELS,
    flip: FLIP,
    speed: maybe(number(0.05, 20))
  },
  drawing: { ...LIT, assetId: HASH },
  words: { ...PARTS, ...WORDS_PARTS },
  shape: { ...PARTS, shape: SHAPE, fill: FILL },
  gradient: { ...PARTS, gradient: GRADIENT },
  solid: { ...PARTS, colour: COLOUR_CHANNEL },
  box: { ...PARTS, depth: maybe(channel(0, 100)), faces: FACES },
  group: {
    ...PARTS,
    layers: later(() => LAYERS),
    space: maybe(
      object({
        distance: maybe(channel(0.1, 100)),
        x: maybe(channel(-100, 100)),
        y: maybe(channel(-100, 100)),
        z: maybe(channel(-100, 100)),
        turnDegrees: maybe(channel(-36e3, 36e3)),
        tiltXDegrees: maybe(channel(-36e3, 36e3)),
        tiltYDegrees: maybe(channel(-36e3, 36e3))
      })
    )
  }
});
var LAYERS = list(LAYER, MOST_LAYERS);

// src/core/show/refusals.ts
function refusalSentence(reason) {
  switch (reason) {
    case "slide-not-found":
      return "That slide is no longer in the show; it may have been removed in another tab.";
    case "layer-not-found":
      return "That picture is no longer on the slide.";
    case "slide-already-there":
      return "That slide is already in the show.";
    case "layer-already-there":
      return "That layer is already on the slide.";
    case "sound-not-found":
      return "That sound is no longer in the show.";
    case "sound-already-there":
      return "That sound is already there.";
    case "too-many-keys":
      return `A channel can have ${MOST_KEYS} keys at most.`;
    case "file-not-used":
      return "That file is no longer used in the show.";
    case "unsound":
      return "The show would not hold together afterwards.";
    default:
      return unreachable(reason);
  }
}

// src/core/show/edits/changing.ts
function done(show, inverse) {
  return { ok: true, show, inverse };
}
function refused(reason) {
  return { ok: false, reason, sentence: refusalSentence(reason) };
}
var counted = (n2, one) => n2 === 1 ? one : `${n2} ${one}s`;
var many = (of) => list(of, MOST_SLIDES, 1);
function slideOf(show, id) {
  return show.slides.find((slide3) => slide3.id === id);
}
function putSlide(show, changed2) {
  return { ...show, slides: show.slides.map((slide3) => slide3.id === changed2.id ? changed2 : slide3) };
}
function changeSlides(show, wanted, change2) {
  return {
    ...show,
    slides: show.slides.map((slide3) => wanted.has(slide3.id) ? change2(slide3, wanted.get(slide3.id)) : slide3)
  };
}
var LAYER_ADDRESS = { slideId: ID, layerId: ID };
var atLayers = (parts) => many(object({ ...LAYER_ADDRESS, ...parts }));
var placeOfSlide = (id, part = "") => `slides/${id}/${part}`;
var placeOfLayer = ({ slideId: slideId2, layerId: layerId2 }, part = "") => `slides/${slideId2}/layers/${layerId2}/${part}`;
function changeLayers(show, entries, change2, before) {
  const wanted = /* @__PURE__ */ new Map();
  for (const entry of entries) {
    if (!wanted.has(entry.slideId)) wanted.set(entry.slideId, /* @__PURE__ */ new Map());
    wanted.get(entry.slideId).set(entry.layerId, entry);
  }
  const was = [];
  const changed2 = changeSlides(show, wanted, (slide3, of) => {
    const layers = withChanged(slide3.layers, of, (layer, entry) => {
      const address = { slideId: slide3.id, layerId: layer.id };
      const told = before(layer, address);
      if (!told) return layer;
      was.push(told);
      return change2(layer, entry);
    });
    return layers === slide3.layers ? slide3 : { ...slide3, layers };
  });
  return { show: changed2, before: was };
}

// src/core/show/edits/add-layers.ts
var PLACED = object({ into: orNull(ID), aboveId: orNull(ID), layers: LAYERS });
var addLayers = {
  kind: "add-layers",
  parts: { slideId: ID, runs: many(PLACED) },
  apply(show, edit) {
    const slide3 = slideOf(show, edit.slideId);
    if (!slide3) return refused("slide-not-found");
    const present = new Set([...everyLayer(slide3.layers)].map((layer) => layer.id));
    const added = edit.runs.flatMap((run) => run.layers);
    if (added.length === 0) return refused("layer-not-found");
    for (const layer of everyLayer(added)) {
      if (present.has(layer.id)) return refused("layer-already-there");
      present.add(layer.id);
    }
    return done(putSlide(show, { ...slide3, layers: layersPutIn(slide3.layers, edit.runs) }), {
      kind: "remove-layers",
      slideId: slide3.id,
      layerIds: added.map((layer) => layer.id)
    });
  },
  touched: () => [],
  sentence: (edit) => `add ${counted(
    edit.runs.reduce((sum, run) => sum + run.layers.length, 0),
    "layer"
  )}`
};

// src/core/show/freed-sounds.ts
function freedCues(cues, before, gone) {
  const heir = (id) => {
    const at3 = before.findIndex((slide3) => slide3.id === id);
    const next = before.slice(at3 + 1).find((slide3) => !gone.has(slide3.id));
    return next?.id ?? null;
  };
  const last = before.findLast((slide3) => !gone.has(slide3.id))?.id ?? null;
  const startOf = (starts) => {
    if (starts.at !== "slide" || !gone.has(starts.slideId)) return starts;
    const slideId2 = heir(starts.slideId) ?? last;
    return slideId2 ? { at: "slide", slideId: slideId2, offsetMs: 0 } : { at: "moment", momentMs: 0 };
  };
  const endOf = (ends) => {
    if (ends.at !== "slide" || !gone.has(ends.slideId)) return ends;
    const slideId2 = heir(ends.slideId);
    return slideId2 ? { at: "slide", slideId: slideId2, offsetMs: 0 } : { at: "show-end", beforeMs: 0 };
  };
  return kept(cues, (cue) => {
    const [starts, ends] = [startOf(cue.starts), endOf(cue.ends)];
    return starts === cue.starts && ends === cue.ends ? cue : { ...cue, starts, ends };
  });
}
function withFreedEnds(slide3, isThere) {
  const sounds = kept(
    slide3.sounds,
    (sound) => sound.ends.at === "slide" && !isThere(sound.ends.slideId) ? { ...sound, ends: { at: "own-end" } } : sound
  );
  return sounds === slide3.sounds ? slide3 : { ...slide3, sounds };
}
function kept(values, change2) {
  const changed2 = values.map(change2);
  return changed2.some((value, index) => value !== values[index]) ? changed2 : values;
}

// src/core/show/order.ts
function takeOut(slides, ids) {
  const taken = runsTakenOut(slides, ids);
  return taken && { rest: taken.rest, runs: taken.runs.map(({ afterId, items }) => ({ afterId, slides: items })) };
}
function putIn(slides, runs) {
  return runsPutIn(
    slides,
    runs.map((run) => ({ afterId: run.afterId, items: run.slides }))
  );
}
function runsTakenOut(items, ids) {
  const leaving = new Set(ids);
  const rest = [];
  const runs = [];
  let open2 = false;
  for (const item of items) {
    if (!leaving.has(item.id)) {
      rest.push(item);
      open2 = false;
      continue;
    }
    if (!open2) runs.push({ afterId: rest.at(-1)?.id ?? null, items: [] });
    runs.at(-1).items.push(item);
    open2 = true;
  }
  return runs.length > 0 ? { rest, runs } : null;
}
function runsPutIn(items, runs) {
  let order2 = items;
  for (const run of runs) {
    const at3 = run.afterId === null ? 0 : order2.findIndex((item) => item.id === run.afterId) + 1;
    const index = run.afterId !== null && at3 === 0 ? order2.length : at3;
    order2 = [...order2.slice(0, index), ...run.items, ...order2.slice(index)];
  }
  return order2;
}

// src/core/show/camera-clock.ts
var LONGEST_CAMERA = 200;
var LARGEST_SHIFT_MS = 50 * 366 * 24 * 36e5;
var CAMERA = text(LONGEST_CAMERA, 1);
var SHIFT = whole(-LARGEST_SHIFT_MS, LARGEST_SHIFT_MS);
var CLOCKS = record(CAMERA, SHIFT, MOST_CAMERAS, 1);
function shiftOf(clocks, camera) {
  return clocks && Object.hasOwn(clocks, camera) ? clocks[camera] : 0;
}

// src/core/focus/focus-schema.ts
var MOST_RINGS = 12;
var RING = object({ x: number(0, 1), y: number(0, 1), radius: number(0.01, 0.75) });
var RINGS = list(RING, MOST_RINGS);

// src/core/show/breath.ts
var BREATH = object({
  beforeMs: whole(0, LONGEST_BREATH_MS),
  afterMs: whole(0, LONGEST_BREATH_MS)
});

// src/core/show/mark.ts
var MARKS = ["keep", "linger", "leave-out"];

// src/core/show/mounted.ts
var MOUNT_ROLES = ["opener", "chapter", "closer", "several"];
var NAME = text(LONGEST_NAME, 1);
var mountedSchema = (slide3) => object({
  run: ID,
  mount: object({ id: text(LONGEST_NAME, 1), name: NAME }),
  fit: NAME,
  before: list(later(slide3), MOST_SLIDES),
  ties: maybe(list(object({ soundId: ID, part: oneOf(["starts", "ends"]), slideId: ID }), 2 * MOST_CUES, 1)),
  words: maybe(
    list(object({ layerId: ID, part: oneOf(["title", "subtitle"]), name: NAME }), 2 * MOST_LAYERS, 1)
  ),
  said: maybe(record(NAME, text(LONGEST_WORDS_SUBTITLE), 2 * MOST_LAYERS, 1)),
  filled: maybe(list({ is: "or-null", of: whole(0, MOST_LAYERS) }, MOST_LAYERS, 1)),
  sum: text(16, 1),
  role: maybe(oneOf(MOUNT_ROLES))
});

// src/core/show/watermark.ts
var WATERMARK = object({
  assetId: HASH,
  place: oneOf(WORDS_PLACES),
  size: number(0.03, 0.6),
  opacity: number(0.05, 1)
});

// src/core/show/schemas/backing-schema.ts
var BACKING = kinds({
  automatic: {},
  colour: { colour: COLOUR },
  gradient: { gradient: STILL_GRADIENT },
  picture: { assetId: HASH },
  blurred: { amount: number(0, 0.1), darkness: number(0, 1) }
});

// src/core/show/schemas/transition-schema.ts
var TIMED = { lengthMs: whole(0, LONGEST_TRANSITION_MS), easing: maybe(WHOLE_EASING) };
var partsOf2 = (record2) => ({
  ...TIMED,
  ...Object.fromEntries(
    Object.entries(record2.parameters).map(([name, parameter]) => [name, schemaOf(parameter)])
  )
});
var TRANSITION = kinds({
  ...Object.fromEntries(
    Object.values(TRANSITIONS).map((record2) => [record2.kind, partsOf2(record2)])
  ),
  cut: {},
  shuffle: { ...TIMED, family: oneOf(["all", ...TRANSITION_FAMILIES]), seed: whole(0, 1e9) }
});

// src/core/plumage/plumage-schema.ts
var MOST_SEEDS = 1e9;
var MOST_DEALT = 40;
var MOUNT_ID = text(LONGEST_NAME, 1);
var FONT = oneOf(FONT_NAMES);
var PALETTE = object({ ink: COLOUR, paper: COLOUR, accent: COLOUR, soft: COLOUR });
var LETTERS = object({
  title: FONT,
  text: FONT,
  weight: number(100, 900),
  spacing: number(-0.2, 2)
});
var PLUMAGE = object({
  id: ID,
  name: text(LONGEST_NAME, 1),
  description: text(LONGEST_REASON),
  letters: LETTERS,
  palette: PALETTE,
  transitions: list(TRANSITION, MOST_DEALT, 1),
  chapterTransition: TRANSITION,
  temperament: oneOf(TEMPERAMENTS),
  backing: BACKING,
  come: object({ way: oneOf(WORDS_WAYS), by: oneOf(WORDS_UNITS) }),
  mounts: object({
    opener: MOUNT_ID,
    chapter: MOUNT_ID,
    closer: MOUNT_ID,
    several: list(MOUNT_ID, MOST_DEALT)
  })
});
var PLUMAGE_WITH = object({
  opener: truth,
  chapters: truth,
  closer: truth,
  several: truth
});
var PLUMAGE_IN_USE = object({
  is: PLUMAGE,
  with: PLUMAGE_WITH,
  seed: whole(0, MOST_SEEDS),
  bare: object({ temperament: orNull(oneOf(TEMPERAMENTS)) }),
  said: maybe(record(text(2 * LONGEST_NAME, 1), text(LONGEST_WORDS_SUBTITLE), MOST_SLIDES, 1))
});

// src/core/show/mix-said.ts
var LOUDNESS_AIMS = ["-14", "-16", "-23", "as-it-is"];
var DEEPEST_DUCK_DB = 40;
var DUCK_TIMES = { leastMs: 100, mostMs: 5e3 };
var MIX_SAID = object({
  duckDb: maybe(number(0, DEEPEST_DUCK_DB)),
  duckInMs: maybe(whole(DUCK_TIMES.leastMs, DUCK_TIMES.mostMs)),
  duckOutMs: maybe(whole(DUCK_TIMES.leastMs, DUCK_TIMES.mostMs)),
  loudness: maybe(oneOf(LOUDNESS_AIMS))
});

// src/core/show/pace.ts
var BEATS_A_PICTURE = { least: 1, most: 64 };
var MEETS = { meets: maybe(oneOf(["middle"])) };
var KINDS = {
  beats: { beats: number(BEATS_A_PICTURE.least, BEATS_A_PICTURE.most), ...MEETS },
  music: MEETS
};
var PACE = { is: "kinds", by: "by", kinds: KINDS };

// src/core/sound/listening/beats-said.ts
var LATEST_NUDGE_MS = 500;
var TAPPED_BPM = { least: 20, most: 400 };
var BEATS_SAID = object({
  times: maybe(oneOf(["half", "twice"])),
  tapped: maybe(
    object({
      bpm: number(TAPPED_BPM.least, TAPPED_BPM.most),
      firstMs: whole(0, 864e5)
    })
  ),
  laterMs: maybe(whole(-LATEST_NUDGE_MS, LATEST_NUDGE_MS)),
  beatsABar: maybe(whole(2, 12)),
  barsLater: maybe(whole(0, 11)),
  sure: maybe(oneOf(["yes"]))
});

// src/core/timing/frame-rate.ts
var FRAME_RATE = object({ frames: whole(1, 24e4), seconds: whole(1, 2002) });

// src/core/sound/voice/cleaning.ts
var LONGEST_MS = 24 * 60 * 60 * 1e3;
var CLEANING = object({
  lowCut: maybe(truth),
  clicks: maybe(truth),
  noise: maybe(number(0, 1)),
  room: maybe(object({ fromMs: whole(0, LONGEST_MS), toMs: whole(0, LONGEST_MS) })),
  even: maybe(truth),
  press: maybe(number(0, 1)),
  breaths: maybe(number(0, 1))
});

// src/core/show/schemas/sound-schema.ts
var places = (of) => ({
  is: "kinds",
  by: "at",
  kinds: of
});
var ANCHORS = {
  slide: { slideId: ID, offsetMs: whole(0, LONGEST_SLIDE_MS) },
  moment: { momentMs: whole(0, LONGEST_SHOW_MS) },
  "show-end": { beforeMs: whole(0, LONGEST_SHOW_MS) }
};
var LONGEST_FADE_MS = 6e5;
var AFTER2 = { overlapMs: maybe(whole(0, LONGEST_FADE_MS)) };
var HERE2 = { here: { offsetMs: whole(0, LONGEST_SLIDE_MS) } };
var IN_SONG = object({ fromMs: number(0, LONGEST_SLIDE_MS), toMs: number(0, LONGEST_SLIDE_MS) });
var SOUND_PARTS = {
  id: ID,
  kind: oneOf(SOUND_KINDS),
  assetId: HASH,
  starts: places({ ...ANCHORS, after: AFTER2, ...HERE2 }),
  ends: places({ ...ANCHORS, "own-end": {} }),
  trimStartMs: whole(0, LONGEST_SLIDE_MS),
  trimEndMs: maybe(whole(0, LONGEST_SLIDE_MS)),
  loops: maybe(truth),
  gainDb: DECIBELS,
  fadeInMs: whole(0, LONGEST_FADE_MS),
  fadeOutMs: whole(0, LONGEST_FADE_MS),
  fadeInCurve: maybe(oneOf(FADE_CURVES)),
  fadeOutCurve: maybe(oneOf(FADE_CURVES)),
  levels: maybe(
    list(
      object({
        from: oneOf(["start", "end"]),
        offsetMs: whole(0, LONGEST_SHOW_MS),
        gainDb: number(-60, 20)
      }),
      MOST_LEVEL_POINTS,
      1
    )
  ),
  name: maybe(text(LONGEST_NAME, 1)),
  resting: maybe(truth),
  runsOn: maybe(truth),
  tailored: maybe(object({ avoid: maybe(list(IN_SONG, 200, 1)), without: maybe(list(IN_SONG, 50, 1)) })),
  cleaned: maybe(object({ from: HASH, how: CLEANING }))
};
var SOUND = object(SOUND_PARTS);
var CUES = list(
  object({
    ...SOUND_PARTS,
    starts: places({ ...ANCHORS, after: AFTER2 })
  }),
  MOST_CUES
);
var SOUNDS_OF_A_SLIDE = list(
  object({ ...SOUND_PARTS, starts: places(HERE2) }),
  MOST_SOUNDS_OF_A_SLIDE
);

// src/core/show/schemas/slide-schema.ts
var SLIDE_LENGTH = whole(SHORTEST_SLIDE_MS, LONGEST_SLIDE_MS);
var CHAPTER_NAME = text(LONGEST_NAME, 1);
var SNAG_KEY = text(LONGEST_NAME, 1);
var REASON = text(LONGEST_REASON);
var LICENCE = text(LONGEST_REASON, 1);
var SCRIPT = text(LONGEST_SCRIPT, 1);
var SLIDE = object({
  id: ID,
  lengthMs: SLIDE_LENGTH,
  transition: TRANSITION,
  backing: BACKING,
  layers: LAYERS,
  sounds: SOUNDS_OF_A_SLIDE,
  chapter: maybe(CHAPTER_NAME),
  script: maybe(SCRIPT),
  breath: maybe(BREATH),
  captions: maybe(CAPTIONS_BY_LANGUAGE),
  waits: maybe(truth),
  chosen: maybe(CHOSEN),
  mounted: maybe(mountedSchema(() => SLIDE)),
  bare: maybe(object({ transition: maybe(TRANSITION), backing: maybe(BACKING) }))
});
var SHOW_TITLE = text(LONGEST_SHOW_TITLE);
var METHOD = maybe(whole(1, 1e3));
var METHODS = object({ basics: METHOD, focus: METHOD, listening: METHOD });
var CONTENT_PARTS = {
  title: SHOW_TITLE,
  frame: object({
    widthPx: whole(SMALLEST_FRAME_PX, LARGEST_FRAME_PX),
    heightPx: whole(SMALLEST_FRAME_PX, LARGEST_FRAME_PX),
    rate: FRAME_RATE
  }),
  defaultLengthMs: SLIDE_LENGTH,
  slides: list(SLIDE, MOST_SLIDES),
  cues: CUES,
  methods: METHODS,
  marks: maybe(record(HASH, oneOf(MARKS), MOST_MARKS, 1)),
  clocks: maybe(CLOCKS),
  focus: maybe(record(HASH, RINGS, MOST_FOCUSED, 1)),
  temperament: maybe(oneOf(TEMPERAMENTS)),
  beats: maybe(record(HASH, BEATS_SAID, MOST_BEATS_SAID, 1)),
  pace: maybe(PACE),
  mix: maybe(MIX_SAID),
  breath: maybe(BREATH),
  captionLook: maybe(CAPTION_LOOK),
  language: maybe(LANGUAGE),
  letBe: maybe(record(SNAG_KEY, REASON, MOST_LEFT_AS_THEY_ARE, 1)),
  licences: maybe(record(HASH, LICENCE, MOST_LICENCES, 1)),
  plumage: maybe(PLUMAGE_IN_USE),
  watermark: maybe(WATERMARK)
};
var SHOW_PARTS = {
  format: oneOf(["tanager-show"]),
  version: whole(FORMAT_VERSION, FORMAT_VERSION),
  id: ID,
  ...CONTENT_PARTS
};

// src/core/show/edits/add-slides.ts
var addSlides = {
  kind: "add-slides",
  parts: { runs: many(object({ afterId: orNull(ID), slides: list(SLIDE, MOST_SLIDES, 1) })) },
  apply(show, edit) {
    const present = new Set(show.slides.map((slide3) => slide3.id));
    const added = edit.runs.flatMap((run) => run.slides);
    for (const slide3 of added) {
      if (present.has(slide3.id)) return refused("slide-already-there");
      present.add(slide3.id);
    }
    const runs = edit.runs.map((run) => ({
      ...run,
      slides: run.slides.map((slide3) => withFreedEnds(slide3, (id) => present.has(id)))
    }));
    return done(
      { ...show, slides: putIn(show.slides, runs) },
      { kind: "remove-slides", slideIds: added.map((slide3) => slide3.id) }
    );
  },
  touched: () => [],
  sentence: (edit) => `add ${counted(
    edit.runs.reduce((sum, run) => sum + run.slides.length, 0),
    "slide"
  )}`
};

// src/core/show/edits/sound-list.ts
var SOUND_HOLDER = orNull(ID);
function soundsIn(show, holder) {
  return holder === null ? show.cues : slideOf(show, holder)?.sounds ?? null;
}
function withSounds(show, holder, sounds) {
  return holder === null ? { ...show, cues: sounds } : putSlide(show, { ...slideOf(show, holder), sounds });
}
function placeOfSounds(holder, part = "") {
  return holder === null ? `cues/${part}` : placeOfSlide(holder, `sounds/${part}`);
}

// src/core/show/edits/add-sounds.ts
var addSounds = {
  kind: "add-sounds",
  parts: {
    slideId: SOUND_HOLDER,
    runs: many(object({ afterId: orNull(ID), sounds: list(SOUND, MOST_CUES, 1) }))
  },
  apply(show, edit) {
    const there = soundsIn(show, edit.slideId);
    if (!there) return refused("slide-not-found");
    const added = edit.runs.flatMap((run) => run.sounds);
    const present = new Set(there.map((sound) => sound.id));
    for (const { id } of added) {
      if (present.has(id)) return refused("sound-already-there");
      present.add(id);
    }
    const runs = edit.runs.map((run) => ({ afterId: run.afterId, items: run.sounds }));
    return done(withSounds(show, edit.slideId, runsPutIn(there, runs)), {
      kind: "remove-sounds",
      slideId: edit.slideId,
      soundIds: added.map((sound) => sound.id)
    });
  },
  touched: () => [],
  sentence: (edit) => `add ${edit.runs[0]?.sounds[0]?.kind === "song" ? "a song" : edit.runs[0]?.sounds[0]?.kind === "voice" ? "a voice" : "a sound"}`
};

// src/core/show/edits/noted.ts
function noted(before, entries) {
  const notes = Object.assign(/* @__PURE__ */ Object.create(null), before);
  const back = entries.map(({ name }) => ({ name, note: notes[name] ?? null }));
  for (const { name, note } of entries) {
    if (note === null) delete notes[name];
    else notes[name] = note;
  }
  const names = Object.keys(notes);
  return { notes: names.length === 0 ? void 0 : Object.fromEntries(Object.entries(notes)), back };
}

// src/core/show/edits/let-be.ts
var letBe = {
  kind: "let-be",
  parts: { snags: many(object({ key: SNAG_KEY, reason: orNull(REASON) })) },
  apply(show, edit) {
    const { notes, back } = noted(
      show.letBe,
      edit.snags.map(({ key: key2, reason }) => ({ name: key2, note: reason }))
    );
    const { letBe: _before, ...rest } = show;
    return done(notes ? { ...rest, letBe: notes } : rest, {
      kind: "let-be",
      snags: back.map(({ name, note }) => ({ key: name, reason: note }))
    });
  },
  touched: (edit) => edit.snags.map(({ key: key2 }) => `letBe/${key2}`),
  sentence: ({ snags }) => {
    if (snags.every(({ reason }) => reason === null)) return `count ${counted(snags.length, "snag")} again`;
    return snags.length === 1 ? "leave a snag as it is" : `leave ${snags.length} snags as they are`;
  }
};

// src/core/show/edits/move-slides.ts
var moveSlides = {
  kind: "move-slides",
  parts: { runs: many(object({ slideIds: many(ID), afterId: orNull(ID) })) },
  apply(show, edit) {
    const byId = new Map(show.slides.map((slide3) => [slide3.id, slide3]));
    const named2 = edit.runs.flatMap((run) => run.slideIds);
    if (new Set(named2).size < named2.length) return refused("slide-already-there");
    const taken = takeOut(show.slides, named2);
    if (!taken) return refused("slide-not-found");
    const placed2 = edit.runs.map((run) => ({
      afterId: run.afterId,
      slides: run.slideIds.flatMap((id) => byId.get(id) ?? [])
    }));
    const back = taken.runs.map((run) => ({ afterId: run.afterId, slideIds: run.slides.map((slide3) => slide3.id) }));
    return done({ ...show, slides: putIn(taken.rest, placed2) }, { kind: "move-slides", runs: back });
  },
  touched: (edit) => edit.runs.flatMap((run) => run.slideIds.map((id) => placeOfSlide(id, "place"))),
  sentence: (edit) => `move ${counted(
    edit.runs.reduce((sum, run) => sum + run.slideIds.length, 0),
    "slide"
  )}`
};

// src/core/show/edits/place-layers.ts
var placeLayers = {
  kind: "place-layers",
  parts: { slideId: ID, runs: many(object({ into: orNull(ID), aboveId: orNull(ID), layerIds: many(ID) })) },
  apply(show, edit) {
    const slide3 = slideOf(show, edit.slideId);
    if (!slide3) return refused("slide-not-found");
    const named2 = edit.runs.flatMap((run) => run.layerIds);
    if (new Set(named2).size < named2.length) return refused("layer-already-there");
    const taken = layersTakenOut(slide3.layers, new Set(named2));
    if (!taken) return refused("layer-not-found");
    const tops = taken.runs.flatMap((run) => run.layers);
    const placed2 = edit.runs.map(({ into, aboveId, layerIds }) => ({
      into,
      aboveId,
      layers: layerIds.flatMap((id) => tops.find((layer) => layer.id === id) ?? [])
    }));
    const layers = layersPutIn(taken.rest, placed2);
    const back = taken.runs.map((run) => ({
      into: run.into,
      aboveId: run.aboveId,
      layerIds: run.layers.map((layer) => layer.id)
    }));
    if (tops.some((layer) => !layerIn(layers, layer.id))) return refused("layer-not-found");
    return done(putSlide(show, { ...slide3, layers }), { kind: "place-layers", slideId: slide3.id, runs: back });
  },
  touched: (edit) => edit.runs.flatMap(
    (run) => run.layerIds.map((layerId2) => placeOfLayer({ slideId: edit.slideId, layerId: layerId2 }, "place"))
  ),
  sentence: (edit) => `move ${counted(
    edit.runs.reduce((sum, run) => sum + run.layerIds.length, 0),
    "layer"
  )}`
};

// src/core/show/edits/put-layer.ts
var putLayer = {
  kind: "put-layer",
  parts: { slideId: ID, layer: LAYER },
  apply(show, edit) {
    const slide3 = slideOf(show, edit.slideId);
    if (!slide3) return refused("slide-not-found");
    const before = layerIn(slide3.layers, edit.layer.id);
    if (!before) return refused("layer-not-found");
    const layers = withChanged(slide3.layers, /* @__PURE__ */ new Map([[before.id, edit.layer]]), (_before, after) => after);
    return done(putSlide(show, { ...slide3, layers }), { ...edit, layer: before });
  },
  touched: (edit) => [placeOfLayer({ slideId: edit.slideId, layerId: edit.layer.id })],
  sentence: () => "change a layer"
};

// src/core/show/edits/put-slides.ts
var putSlides = {
  kind: "put-slides",
  parts: { slides: many(SLIDE) },
  apply(show, edit) {
    const wanted = new Map(edit.slides.map((slide3) => [slide3.id, slide3]));
    const before = show.slides.filter((slide3) => wanted.has(slide3.id));
    if (before.length === 0) return refused("slide-not-found");
    return done(
      changeSlides(show, wanted, (_before, after) => after),
      { kind: "put-slides", slides: before }
    );
  },
  touched: (edit) => edit.slides.map((slide3) => placeOfSlide(slide3.id)),
  sentence: (edit) => `change ${counted(edit.slides.length, "slide")}`
};

// src/core/show/edits/remove-layers.ts
var removeLayers = {
  kind: "remove-layers",
  parts: { slideId: ID, layerIds: many(ID) },
  apply(show, edit) {
    const slide3 = slideOf(show, edit.slideId);
    if (!slide3) return refused("slide-not-found");
    const taken = layersTakenOut(slide3.layers, new Set(edit.layerIds));
    if (!taken) return refused("layer-not-found");
    const gone = new Set(taken.runs.flatMap((run) => [...everyLayer(run.layers)].map((layer) => layer.id)));
    const freed = [];
    const layers = mapped2(taken.rest, (layer) => {
      const free = withoutNamesOf(layer, gone);
      if (free === layer) return layer;
      const properties = {
        ...free.tether !== layer.tether && { tether: layer.tether },
        ...free.mask !== layer.mask && { mask: layer.mask }
      };
      freed.push({ kind: "set-layer-properties", slideId: slide3.id, layerId: layer.id, properties });
      return free;
    });
    const back = { kind: "add-layers", slideId: slide3.id, runs: taken.runs };
    return done(
      putSlide(show, { ...slide3, layers }),
      freed.length === 0 ? back : { kind: "together", name: removeLayers.sentence(edit), edits: [back, ...freed] }
    );
  },
  touched: (edit) => edit.layerIds.map((layerId2) => placeOfLayer({ slideId: edit.slideId, layerId: layerId2 })),
  sentence: (edit) => `remove ${counted(edit.layerIds.length, "layer")}`
};
function withoutNamesOf(layer, gone) {
  let free = layer;
  if (free.tether && gone.has(free.tether.to)) {
    const { tether: _gone, ...rest } = free;
    free = rest;
  }
  const { mask } = free;
  if (mask && mask.cuts !== "below" && mask.cuts.some((id) => gone.has(id)))
    free = { ...free, mask: { ...mask, cuts: mask.cuts.filter((id) => !gone.has(id)) } };
  return free;
}

// src/core/show/edits/remove-slides.ts
var removeSlides = {
  kind: "remove-slides",
  parts: { slideIds: many(ID) },
  apply(show, edit) {
    const taken = takeOut(show.slides, edit.slideIds);
    if (!taken) return refused("slide-not-found");
    const gone = new Set(taken.runs.flatMap((run) => run.slides.map((slide3) => slide3.id)));
    const cues = freedCues(show.cues, show.slides, gone);
    const isThere = (id) => !gone.has(id);
    const slides = taken.rest.map((slide3) => withFreedEnds(slide3, isThere));
    const freed = cues.flatMap((cue, index) => {
      const was = show.cues[index];
      const { starts, ends } = was;
      return cue === was ? [] : [{ kind: "set-sound", slideId: null, soundId: cue.id, properties: { starts, ends } }];
    });
    slides.forEach((slide3, at3) => {
      slide3.sounds.forEach((sound, index) => {
        const was = taken.rest[at3].sounds[index];
        if (sound !== was)
          freed.push({ kind: "set-sound", slideId: slide3.id, soundId: sound.id, properties: { ends: was.ends } });
      });
    });
    const back = { kind: "add-slides", runs: taken.runs };
    return done(
      { ...show, slides, cues },
      freed.length === 0 ? back : { kind: "together", name: removeSlides.sentence(edit), edits: [back, ...freed] }
    );
  },
  touched: (edit) => edit.slideIds.map((id) => placeOfSlide(id)),
  sentence: (edit) => `remove ${counted(edit.slideIds.length, "slide")}`
};

// src/core/show/edits/remove-sounds.ts
var removeSounds = {
  kind: "remove-sounds",
  parts: { slideId: SOUND_HOLDER, soundIds: many(ID) },
  apply(show, edit) {
    const there = soundsIn(show, edit.slideId);
    if (!there) return refused("slide-not-found");
    const taken = runsTakenOut(there, edit.soundIds);
    if (!taken) return refused("sound-not-found");
    return done(withSounds(show, edit.slideId, taken.rest), {
      kind: "add-sounds",
      slideId: edit.slideId,
      runs: taken.runs.map(({ afterId, items }) => ({ afterId, sounds: items }))
    });
  },
  touched: (edit) => edit.soundIds.map((id) => placeOfSounds(edit.slideId, `${id}/`)),
  sentence({ slideId: slideId2, soundIds }) {
    const one = slideId2 === null ? "song" : "sound";
    return soundIds.length === 1 ? `take out a ${one}` : `take out ${counted(soundIds.length, one)}`;
  }
};

// src/core/show/edits/rename-show.ts
var renameShow = {
  kind: "rename-show",
  parts: { title: text(LONGEST_SHOW_TITLE, 1) },
  apply: (show, edit) => done({ ...show, title: edit.title }, { kind: "rename-show", title: show.title }),
  touched: () => ["title"],
  sentence: () => "rename the show"
};

// src/core/show/edits/set-beats.ts
var setBeats = {
  kind: "set-beats",
  parts: { beats: many(object({ assetId: HASH, said: orNull(BEATS_SAID) })) },
  apply(show, edit) {
    const before = edit.beats.map(({ assetId: assetId2 }) => ({ assetId: assetId2, said: show.beats?.[assetId2] ?? null }));
    const said = new Map(Object.entries(show.beats ?? {}));
    for (const entry of edit.beats) {
      if (entry.said) said.set(entry.assetId, entry.said);
      else said.delete(entry.assetId);
    }
    const { beats: _before, ...rest } = show;
    return done(said.size === 0 ? rest : { ...rest, beats: Object.fromEntries(said) }, {
      kind: "set-beats",
      beats: before
    });
  },
  touched: (edit) => edit.beats.map((entry) => `beats/${entry.assetId}`),
  sentence: () => "put the beats right"
};

// src/core/show/edits/set-chapters.ts
var setChapters = {
  kind: "set-chapters",
  parts: { chapters: many(object({ slideId: ID, name: orNull(CHAPTER_NAME) })) },
  apply(show, edit) {
    const wanted = new Map(edit.chapters.map((entry) => [entry.slideId, entry]));
    const before = show.slides.filter((slide3) => wanted.has(slide3.id));
    if (before.length === 0) return refused("slide-not-found");
    return done(
      changeSlides(show, wanted, (slide3, { name }) => {
        const { chapter: _chapter, ...rest } = slide3;
        return name === null ? rest : { ...rest, chapter: name };
      }),
      {
        kind: "set-chapters",
        chapters: before.map((slide3) => ({ slideId: slide3.id, name: slide3.chapter ?? null }))
      }
    );
  },
  touched: (edit) => edit.chapters.map((entry) => placeOfSlide(entry.slideId, "chapter")),
  sentence: (edit) => edit.chapters.every((entry) => entry.name === null) ? `end ${counted(edit.chapters.length, "chapter")} here` : `name ${counted(edit.chapters.length, "chapter")}`
};

// src/core/show/edits/set-mix.ts
var setMix = {
  kind: "set-mix",
  parts: { mix: orNull(MIX_SAID) },
  apply(show, edit) {
    const { mix: before, ...rest } = show;
    return done(edit.mix === null ? rest : { ...rest, mix: edit.mix }, {
      kind: "set-mix",
      mix: before ?? null
    });
  },
  touched: () => ["mix"],
  sentence: () => "change the mix"
};

// src/core/show/edits/set-pace.ts
var setPace = {
  kind: "set-pace",
  parts: { pace: orNull(PACE) },
  apply(show, edit) {
    const { pace: before, ...rest } = show;
    return done(edit.pace === null ? rest : { ...rest, pace: edit.pace }, {
      kind: "set-pace",
      pace: before ?? null
    });
  },
  touched: () => ["pace"],
  sentence: () => "change who leads, pictures or music"
};

// src/core/show/edits/set-backing.ts
var setBacking = {
  kind: "set-backing",
  parts: { slideId: ID, backing: BACKING, by: maybe(orNull(CHOOSER)) },
  apply(show, edit) {
    const slide3 = slideOf(show, edit.slideId);
    if (!slide3) return refused("slide-not-found");
    const { backing, by = backing.kind === "automatic" ? null : "hand" } = edit;
    return done(putSlide(show, withChooser({ ...slide3, backing }, "backing", by)), {
      ...edit,
      backing: slide3.backing,
      by: slide3.chosen?.backing ?? null
    });
  },
  touched: (edit) => [placeOfSlide(edit.slideId, "backing")],
  sentence: () => "change the backing"
};

// src/core/show/edits/set-channels.ts
var CHANGES = Object.fromEntries(
  Object.entries(CHANNELS).map(([name, schema]) => [
    name,
    schema.is === "maybe" ? { is: "maybe", of: orNull(schema.of) } : schema
  ])
);
var setChannels = {
  kind: "set-channels",
  parts: { ...LAYER_ADDRESS, channels: object(CHANGES) },
  apply(show, edit) {
    const names = Object.keys(edit.channels);
    const { show: after, before } = changeLayers(
      show,
      [edit],
      (layer2, { channels: channels2 }) => withChannels(layer2, channels2),
      (layer2, address) => ({
        ...address,
        kind: "set-channels",
        channels: Object.fromEntries(names.map((name) => [name, layer2.channels?.[name] ?? null]))
      })
    );
    const [was] = before;
    if (!was) return refused("layer-not-found");
    const layer = layerIn(slideOf(show, edit.slideId).layers, edit.layerId);
    const bare = layer.channels && Object.keys(layer.channels).length === 0;
    return done(after, bare ? { kind: "put-layer", slideId: edit.slideId, layer } : was);
  },
  touched: (edit) => Object.keys(edit.channels).map((name) => placeOfLayer(edit, `channels/${name}/`)),
  sentence: () => "move a layer"
};
function withChannels(layer, changes) {
  const channels2 = { ...layer.channels };
  for (const [name, value] of Object.entries(changes)) {
    if (value === null || value === void 0) delete channels2[name];
    else channels2[name] = value;
  }
  const { channels: _before, ...rest } = layer;
  return Object.keys(channels2).length > 0 ? { ...layer, channels: channels2 } : rest;
}

// src/core/show/edits/set-choosers.ts
var setChoosers = {
  kind: "set-choosers",
  parts: {
    choosers: many(
      object({
        slideId: ID,
        layerId: maybe(ID),
        value: oneOf([...SLIDE_VALUES, ...LAYER_VALUES]),
        by: orNull(CHOOSER)
      })
    )
  },
  fault: ({ choosers }) => choosers.every(({ layerId: layerId2, value }) => layerId2 === void 0 ? isOfSlide(value) : !isOfSlide(value)) ? null : "a slide\u2019s own values are its length, transition and backing, and a layer\u2019s its move, words and light",
  apply(show, edit) {
    let after = show;
    const back = [];
    for (const entry of edit.choosers) {
      const slide3 = slideOf(after, entry.slideId);
      const changed2 = slide3 && withEntry(slide3, entry);
      if (!changed2) continue;
      back.unshift({ ...entry, by: changed2.was });
      after = putChanged(after, slide3, changed2.slide);
    }
    return back.length > 0 ? done(after, { kind: "set-choosers", choosers: back }) : refused("slide-not-found");
  },
  touched: (edit) => edit.choosers.map(
    ({ slideId: slideId2, layerId: layerId2, value }) => layerId2 === void 0 ? placeOfSlide(slideId2, value) : placeOfLayer({ slideId: slideId2, layerId: layerId2 }, value)
  ),
  sentence: ({ choosers }) => `${choosers[0]?.by === "hand" ? "hold" : "let go"} the ${choosers[0]?.value ?? "length"} of ${counted(choosers.length, choosers[0]?.layerId === void 0 ? "slide" : "layer")}`
};
function isOfSlide(value) {
  return SLIDE_VALUES.includes(value);
}
function withEntry(slide3, { layerId: layerId2, value, by }) {
  if (layerId2 === void 0)
    return isOfSlide(value) ? { slide: withChooser(slide3, value, by), was: slide3.chosen?.[value] ?? null } : null;
  const layer = layerIn(slide3.layers, layerId2);
  if (!layer || isOfSlide(value)) return null;
  const layers = withChanged(slide3.layers, /* @__PURE__ */ new Map([[layerId2, null]]), (one) => withChooser(one, value, by));
  return { slide: { ...slide3, layers }, was: layer.chosen?.[value] ?? null };
}
function putChanged(show, before, after) {
  return before === after ? show : putSlide(show, after);
}

// src/core/show/edits/set-breaths.ts
var setBreaths = {
  kind: "set-breaths",
  parts: { breaths: many(object({ slideId: orNull(ID), breath: orNull(BREATH) })) },
  apply(show, edit) {
    const ofShow = edit.breaths.findLast((entry) => entry.slideId === null);
    const wanted = new Map(edit.breaths.flatMap((entry) => entry.slideId === null ? [] : [[entry.slideId, entry]]));
    const before = show.slides.filter((slide3) => wanted.has(slide3.id));
    if (!ofShow && before.length === 0) return refused("slide-not-found");
    const { breath: breathBefore, ...rest } = show;
    const whole2 = !ofShow ? show : ofShow.breath === null ? rest : { ...rest, breath: ofShow.breath };
    return done(
      changeSlides(whole2, wanted, (slide3, { breath }) => {
        const { breath: _breath, ...others } = slide3;
        return breath === null ? others : { ...others, breath };
      }),
      {
        kind: "set-breaths",
        breaths: [
          ...ofShow ? [{ slideId: null, breath: breathBefore ?? null }] : [],
          ...before.map((slide3) => ({ slideId: slide3.id, breath: slide3.breath ?? null }))
        ]
      }
    );
  },
  touched: (edit) => edit.breaths.map(({ slideId: slideId2 }) => slideId2 === null ? "breath" : placeOfSlide(slideId2, "breath")),
  sentence: () => "change the silence around voices"
};

// src/core/show/edits/set-caption-look.ts
var setCaptionLook = {
  kind: "set-caption-look",
  parts: { look: maybe(orNull(CAPTION_LOOK)), language: maybe(orNull(LANGUAGE)) },
  apply(show, edit) {
    const { captionLook, language, ...rest } = show;
    const [nextLook, nextLanguage] = [
      edit.look === void 0 ? captionLook : edit.look,
      edit.language === void 0 ? language : edit.language
    ];
    return done(
      { ...rest, ...nextLook && { captionLook: nextLook }, ...nextLanguage && { language: nextLanguage } },
      {
        kind: "set-caption-look",
        ...edit.look !== void 0 && { look: captionLook ?? null },
        ...edit.language !== void 0 && { language: language ?? null }
      }
    );
  },
  touched: (edit) => [
    ...edit.look === void 0 ? [] : ["caption-look"],
    ...edit.language === void 0 ? [] : ["language"]
  ],
  sentence: (edit) => edit.look === void 0 ? "change the language" : "change how captions look"
};

// src/core/show/edits/set-captions.ts
var setCaptions = {
  kind: "set-captions",
  parts: { captions: many(object({ slideId: ID, language: LANGUAGE, captions: orNull(CAPTIONS) })) },
  apply(show, edit) {
    const wanted = /* @__PURE__ */ new Map();
    for (const entry of edit.captions) wanted.set(entry.slideId, [...wanted.get(entry.slideId) ?? [], entry]);
    const before = show.slides.filter((slide3) => wanted.has(slide3.id));
    if (before.length === 0) return refused("slide-not-found");
    return done(
      changeSlides(show, wanted, (slide3, entries) => {
        const { captions = {}, ...rest } = slide3;
        const said = new Map(Object.entries(captions));
        for (const entry of entries) said.set(entry.language, entry.captions);
        const kept3 = [...said].flatMap(([language, list2]) => list2 === null ? [] : [[language, list2]]);
        return kept3.length === 0 ? rest : { ...rest, captions: Object.fromEntries(kept3) };
      }),
      {
        kind: "set-captions",
        captions: before.flatMap(
          (slide3) => wanted.get(slide3.id).map(({ language }) => ({ slideId: slide3.id, language, captions: slide3.captions?.[language] ?? null }))
        )
      }
    );
  },
  touched: (edit) => edit.captions.map(({ slideId: slideId2, language }) => placeOfSlide(slideId2, `captions/${language}`)),
  sentence: (edit) => edit.captions.every((entry) => entry.captions === null) ? "take captions away" : "change captions"
};

// src/core/show/edits/set-scripts.ts
var setScripts = {
  kind: "set-scripts",
  parts: { scripts: many(object({ slideId: ID, script: orNull(SCRIPT) })) },
  apply(show, edit) {
    const wanted = new Map(edit.scripts.map((entry) => [entry.slideId, entry]));
    const before = show.slides.filter((slide3) => wanted.has(slide3.id));
    if (before.length === 0) return refused("slide-not-found");
    return done(
      changeSlides(show, wanted, (slide3, { script }) => {
        const { script: _script, ...rest } = slide3;
        return script === null ? rest : { ...rest, script };
      }),
      { kind: "set-scripts", scripts: before.map((slide3) => ({ slideId: slide3.id, script: slide3.script ?? null })) }
    );
  },
  touched: (edit) => edit.scripts.map((entry) => placeOfSlide(entry.slideId, "script")),
  sentence: (edit) => edit.scripts.length === 1 ? "change the script" : `change the script of ${counted(edit.scripts.length, "slide")}`
};

// src/core/show/edits/set-clocks.ts
var setClocks = {
  kind: "set-clocks",
  parts: { clocks: many(object({ camera: CAMERA, shiftMs: orNull(SHIFT) })) },
  apply(show, edit) {
    const before = edit.clocks.map(({ camera }) => ({ camera, shiftMs: shiftOf(show.clocks, camera) || null }));
    const shifts = new Map(Object.entries(show.clocks ?? {}));
    for (const { camera, shiftMs } of edit.clocks) {
      if (shiftMs) shifts.set(camera, shiftMs);
      else shifts.delete(camera);
    }
    const { clocks: _before, ...rest } = show;
    return done(shifts.size === 0 ? rest : { ...rest, clocks: Object.fromEntries(shifts) }, {
      kind: "set-clocks",
      clocks: before
    });
  },
  touched: (edit) => edit.clocks.map((entry) => `clocks/${entry.camera}`),
  sentence: (edit) => edit.clocks.length === 1 ? "put a camera\u2019s clock right" : "put the cameras\u2019 clocks right"
};

// src/core/show/edits/set-focus.ts
var setFocus = {
  kind: "set-focus",
  parts: { focus: many(object({ assetId: HASH, rings: orNull(RINGS) })) },
  apply(show, edit) {
    const before = edit.focus.map(({ assetId: assetId2 }) => ({ assetId: assetId2, rings: show.focus?.[assetId2] ?? null }));
    const said = new Map(Object.entries(show.focus ?? {}));
    for (const { assetId: assetId2, rings } of edit.focus) {
      if (rings) said.set(assetId2, rings);
      else said.delete(assetId2);
    }
    const { focus: _before, ...rest } = show;
    return done(said.size === 0 ? rest : { ...rest, focus: Object.fromEntries(said) }, {
      kind: "set-focus",
      focus: before
    });
  },
  touched: (edit) => edit.focus.map((entry) => `focus/${entry.assetId}`),
  sentence: (edit) => edit.focus.length === 1 ? "say what a picture is about" : `say what ${edit.focus.length} pictures are about`
};

// src/core/show/edits/set-temperament.ts
var setTemperament = {
  kind: "set-temperament",
  parts: { temperament: orNull(oneOf(TEMPERAMENTS)) },
  apply(show, edit) {
    const { temperament: before, ...rest } = show;
    return done(edit.temperament === null ? rest : { ...rest, temperament: edit.temperament }, {
      kind: "set-temperament",
      temperament: before ?? null
    });
  },
  touched: () => ["temperament"],
  sentence: () => "change how much pictures move"
};

// src/core/show/edits/set-content.ts
var setContent = {
  kind: "set-content",
  parts: { content: object(CONTENT_PARTS) },
  apply: (show, edit) => done(
    { format: show.format, version: show.version, id: show.id, ...edit.content },
    { kind: "set-content", content: contentOf(show) }
  ),
  touched: () => [""],
  sentence: () => "go to another version"
};

// src/core/show/edits/set-crops.ts
var setCrops = {
  kind: "set-crops",
  parts: { crops: atLayers({ crop: orNull(CROP), move: MOVE }) },
  apply(show, edit) {
    const { show: after, before } = changeLayers(
      show,
      edit.crops,
      (layer, { crop, move }) => {
        if (layer.kind !== "picture") return layer;
        const { crop: _before, ...rest } = layer;
        return crop ? { ...rest, move, crop } : { ...rest, move };
      },
      (layer, address) => layer.kind === "picture" ? { ...address, crop: layer.crop ?? null, move: layer.move } : null
    );
    return before.length > 0 ? done(after, { kind: "set-crops", crops: before }) : refused("layer-not-found");
  },
  touched: (edit) => edit.crops.flatMap((entry) => [placeOfLayer(entry, "crop"), placeOfLayer(entry, "move")]),
  sentence: (edit) => edit.crops.length === 1 ? "crop the picture" : `crop ${edit.crops.length} pictures`
};

// src/core/show/edits/set-cues.ts
var setCues = {
  kind: "set-cues",
  parts: { cues: CUES },
  apply: (show, edit) => done({ ...show, cues: edit.cues }, { kind: "set-cues", cues: show.cues }),
  touched: () => ["cues/"],
  sentence: () => "change the music"
};

// src/core/show/edits/set-default-length.ts
var setDefaultLength = {
  kind: "set-default-length",
  parts: { lengthMs: SLIDE_LENGTH },
  apply: (show, edit) => done({ ...show, defaultLengthMs: edit.lengthMs }, { kind: "set-default-length", lengthMs: show.defaultLengthMs }),
  touched: () => ["pace"],
  sentence: () => "change the pace"
};

// src/core/show/edits/set-edge.ts
var setEdge = {
  kind: "set-edge",
  parts: { edges: atLayers({ edge: orNull(EDGE) }) },
  apply(show, edit) {
    const { show: after, before } = changeLayers(
      show,
      edit.edges,
      (layer, { edge }) => {
        const { edge: _before, ...rest } = layer;
        return edge ? { ...rest, edge } : rest;
      },
      (layer, address) => ({ ...address, edge: layer.edge ?? null })
    );
    return before.length > 0 ? done(after, { kind: "set-edge", edges: before }) : refused("layer-not-found");
  },
  touched: (edit) => edit.edges.map((entry) => placeOfLayer(entry, "edge")),
  sentence: (edit) => edit.edges.length === 1 ? "change the edge" : `change the edges of ${edit.edges.length} pictures`
};

// src/core/show/edits/set-key.ts
var KEY = object({
  value: number(-36e3, 36e3),
  easing: maybe(EASING),
  slopes: maybe(SLOPES)
});
var setKey = {
  kind: "set-key",
  parts: {
    ...LAYER_ADDRESS,
    channel: oneOf(Object.keys(CHANNEL_BOUNDS)),
    at: KEY_TIME,
    key: orNull(KEY),
    after: orNull(KEY_TIME)
  },
  fault({ channel: channel2, key: key2 }) {
    const [least, most] = CHANNEL_BOUNDS[channel2];
    return key2 && (key2.value < least || key2.value > most) ? `a key of ${channel2} must lie within ${least} and ${most}` : null;
  },
  apply(show, edit, nested) {
    const slide3 = slideOf(show, edit.slideId);
    if (!slide3) return refused("slide-not-found");
    const layer = layerIn(slide3.layers, edit.layerId);
    const before = layer?.channels?.[edit.channel];
    const keys2 = typeof before === "object" ? before.keys : [];
    const index = keys2.findIndex((key2) => isSameTime(key2.at, edit.at));
    if (!layer || !edit.key && index < 0) return refused("layer-not-found");
    if (edit.key && index < 0 && keys2.length >= MOST_KEYS) return refused("too-many-keys");
    const result = nested(show, channelEdit(edit, like(before, withKey(keys2, index, edit))));
    if (!result.ok) return result;
    return keys2.length > 0 && hasOwnTimes(keys2) ? { ...result, inverse: inverseOf(edit, keys2, index) ?? result.inverse } : result;
  },
  touched: (edit) => [placeOfLayer(edit, `channels/${edit.channel}/${JSON.stringify(edit.at)}`)],
  sentence: (edit) => edit.key ? "set a key" : "remove a key"
};
function channelEdit({ slideId: slideId2, layerId: layerId2, channel: channel2 }, value) {
  return { kind: "set-channels", slideId: slideId2, layerId: layerId2, channels: { [channel2]: value } };
}
function like(before, after) {
  return typeof before === "object" && before.smooth && typeof after === "object" ? { ...before, ...after } : after;
}
function withKey(keys2, index, { at: at3, key: key2, after }) {
  if (!key2) {
    const rest = keys2.filter((_key, other) => other !== index);
    return rest.length > 0 ? { keys: rest } : keys2[index].value;
  }
  const set2 = { at: at3, ...key2 };
  if (index >= 0) return { keys: keys2.map((other, position) => position === index ? set2 : other) };
  const before = after === null ? -1 : keys2.findIndex((other) => isSameTime(other.at, after));
  const place = after !== null && before < 0 ? keys2.length : before + 1;
  return { keys: [...keys2.slice(0, place), set2, ...keys2.slice(place)] };
}
function inverseOf(edit, keys2, index) {
  if (index < 0) return { ...edit, key: null };
  if (!edit.key && keys2.length === 1) return null;
  const { at: _at, ...key2 } = keys2[index];
  return { ...edit, key: key2, after: keys2[index - 1]?.at ?? null };
}
function isSameTime(one, other) {
  if (one.tied === "stretch") return other.tied === "stretch" && one.share === other.share;
  return one.tied === other.tied && one.ms === other.ms;
}
function hasOwnTimes(keys2) {
  return keys2.every((key2, index) => keys2.findIndex((other) => isSameTime(other.at, key2.at)) === index);
}

// src/core/show/edits/set-layer-properties.ts
var PROPERTIES = Object.fromEntries(
  Object.entries(LAYER_PROPERTIES).map(([name, schema]) => [
    name,
    schema.is === "maybe" ? { is: "maybe", of: orNull(schema.of) } : schema
  ])
);
var setLayerProperties = {
  kind: "set-layer-properties",
  parts: { ...LAYER_ADDRESS, properties: object(PROPERTIES) },
  apply(show, edit) {
    const names = Object.keys(edit.properties);
    const { show: after, before } = changeLayers(
      show,
      [edit],
      (layer, { properties }) => withProperties(layer, properties),
      (layer, address) => ({
        ...address,
        kind: "set-layer-properties",
        properties: Object.fromEntries(names.map((name) => [name, layer[name] ?? null]))
      })
    );
    return before[0] ? done(after, before[0]) : refused("layer-not-found");
  },
  touched: (edit) => Object.keys(edit.properties).map((name) => placeOfLayer(edit, name)),
  sentence({ properties }) {
    if ("name" in properties) return "name a layer";
    if ("hidden" in properties) return properties.hidden ? "hide a layer" : "show a layer";
    if ("locked" in properties) return properties.locked ? "lock a layer" : "unlock a layer";
    if ("mask" in properties) return "change a mask";
    return "tether" in properties ? "change a tether" : "change a layer";
  }
};
function withProperties(layer, properties) {
  const changed2 = { ...layer };
  for (const [name, value] of Object.entries(properties)) {
    if (value === null || value === void 0) delete changed2[name];
    else changed2[name] = value;
  }
  return changed2;
}

// src/core/show/edits/set-licences.ts
var setLicences = {
  kind: "set-licences",
  parts: { licences: many(object({ assetId: HASH, licence: orNull(LICENCE) })) },
  apply(show, edit) {
    const { notes, back } = noted(
      show.licences,
      edit.licences.map(({ assetId: assetId2, licence }) => ({ name: assetId2, note: licence }))
    );
    const { licences: _before, ...rest } = show;
    return done(notes ? { ...rest, licences: notes } : rest, {
      kind: "set-licences",
      licences: back.map(({ name, note }) => ({ assetId: name, licence: note }))
    });
  },
  touched: (edit) => edit.licences.map(({ assetId: assetId2 }) => `licences/${assetId2}`),
  sentence: ({ licences }) => licences.length === 1 ? "note by what right a file is used" : `note by what right ${licences.length} files are used`
};

// src/core/show/edits/set-layers.ts
var setLayers = {
  kind: "set-layers",
  parts: { slideId: ID, layers: LAYERS },
  apply(show, edit) {
    const slide3 = slideOf(show, edit.slideId);
    if (!slide3) return refused("slide-not-found");
    return done(putSlide(show, { ...slide3, layers: edit.layers }), { ...edit, layers: slide3.layers });
  },
  touched: (edit) => [placeOfSlide(edit.slideId, "layers/")],
  sentence: () => "change the layers"
};

// src/core/show/edits/set-lengths.ts
var setLengths = {
  kind: "set-lengths",
  parts: { lengths: many(object({ slideId: ID, lengthMs: SLIDE_LENGTH, by: maybe(orNull(CHOOSER)) })) },
  apply(show, edit) {
    const wanted = new Map(edit.lengths.map((entry) => [entry.slideId, entry]));
    const before = show.slides.filter((slide3) => wanted.has(slide3.id));
    if (before.length === 0) return refused("slide-not-found");
    return done(
      changeSlides(
        show,
        wanted,
        (slide3, { lengthMs, by = "hand" }) => withChooser({ ...slide3, lengthMs }, "length", by)
      ),
      {
        kind: "set-lengths",
        lengths: before.map((slide3) => ({
          slideId: slide3.id,
          lengthMs: slide3.lengthMs,
          by: slide3.chosen?.length ?? null
        }))
      }
    );
  },
  touched: (edit) => edit.lengths.map((entry) => placeOfSlide(entry.slideId, "length")),
  sentence: (edit) => `change the length of ${counted(edit.lengths.length, "slide")}`
};

// src/core/show/edits/set-light.ts
var setLight = {
  kind: "set-light",
  parts: { lights: atLayers({ light: orNull(LIGHT), by: maybe(orNull(CHOOSER)) }) },
  apply(show, edit) {
    const { show: after, before } = changeLayers(
      show,
      edit.lights,
      (layer, { light, by = light ? "hand" : null }) => {
        if (!isLit(layer)) return layer;
        const { light: _before, ...rest } = layer;
        return withChooser(light ? { ...rest, light } : rest, "light", by);
      },
      (layer, address) => isLit(layer) ? { ...address, light: layer.light ?? null, by: layer.chosen?.light ?? null } : null
    );
    return before.length > 0 ? done(after, { kind: "set-light", lights: before }) : refused("layer-not-found");
  },
  touched: (edit) => edit.lights.map((entry) => placeOfLayer(entry, "light")),
  sentence: (edit) => edit.lights.length === 1 ? "change the light" : `change the light of ${edit.lights.length} pictures`
};

// src/core/show/edits/set-marks.ts
var setMarks = {
  kind: "set-marks",
  parts: { marks: many(object({ assetId: HASH, mark: orNull(oneOf(MARKS)) })) },
  apply(show, edit) {
    const before = edit.marks.map(({ assetId: assetId2 }) => ({ assetId: assetId2, mark: show.marks?.[assetId2] ?? null }));
    const marks = { ...show.marks };
    for (const { assetId: assetId2, mark } of edit.marks) {
      if (mark) marks[assetId2] = mark;
      else delete marks[assetId2];
    }
    const { marks: _before, ...rest } = show;
    return done(Object.keys(marks).length === 0 ? rest : { ...rest, marks }, { kind: "set-marks", marks: before });
  },
  touched: (edit) => edit.marks.map((entry) => `marks/${entry.assetId}`),
  sentence: (edit) => edit.marks.length === 1 ? "mark a print" : `mark ${edit.marks.length} prints`
};

// src/core/show/edits/set-methods.ts
var setMethods = {
  kind: "set-methods",
  parts: { methods: METHODS },
  apply: (show, edit) => done({ ...show, methods: edit.methods }, { kind: "set-methods", methods: show.methods }),
  touched: () => ["methods"],
  sentence: () => "go over to newer methods"
};

// src/core/show/edits/set-move.ts
var setMove2 = {
  kind: "set-move",
  parts: { ...LAYER_ADDRESS, move: MOVE, by: maybe(orNull(CHOOSER)) },
  apply(show, edit) {
    if (!slideOf(show, edit.slideId)) return refused("slide-not-found");
    const { show: after, before } = changeLayers(
      show,
      [edit],
      (layer, { move, by = move.kind === "automatic" ? null : "hand" }) => layer.kind === "picture" ? withChooser({ ...layer, move }, "move", by) : layer,
      (layer, address) => layer.kind === "picture" ? { ...address, kind: "set-move", move: layer.move, by: layer.chosen?.move ?? null } : null
    );
    return before[0] ? done(after, before[0]) : refused("layer-not-found");
  },
  touched: (edit) => [placeOfLayer(edit, "move")],
  sentence: () => "change the move"
};

// src/core/show/edits/set-plumage.ts
var setPlumage = {
  kind: "set-plumage",
  parts: { plumage: orNull(PLUMAGE_IN_USE) },
  apply(show, edit) {
    const { plumage: before, ...rest } = show;
    return done(edit.plumage ? { ...rest, plumage: edit.plumage } : rest, {
      kind: "set-plumage",
      plumage: before ?? null
    });
  },
  touched: () => ["plumage"],
  sentence: ({ plumage }) => plumage ? `dress the show in ${plumage.is.name}` : "take the plumage off"
};

// src/core/show/edits/set-shape.ts
var setShape = {
  kind: "set-shape",
  parts: { corrections: atLayers({ shape: SHAPE_NAME, correction: orNull(SHAPE_CORRECTION) }) },
  apply(show, edit) {
    let after = show;
    const back = [];
    for (const entry of edit.corrections) {
      const changed2 = changeLayers(
        after,
        [entry],
        (layer, { shape: shape3, correction }) => withCorrection(layer, shape3, correction),
        (layer, address) => ({
          ...address,
          shape: entry.shape,
          correction: layer.shapes?.[entry.shape] ?? null
        })
      );
      after = changed2.show;
      back.unshift(...changed2.before);
    }
    return back.length > 0 ? done(after, { kind: "set-shape", corrections: back }) : refused("layer-not-found");
  },
  touched: (edit) => edit.corrections.map((entry) => placeOfLayer(entry, `shapes/${entry.shape}`)),
  sentence: (edit) => `correct ${edit.corrections.length === 1 ? "a layer" : `${edit.corrections.length} layers`} for another shape`
};
function withCorrection(layer, shape3, correction) {
  const { shapes, ...rest } = layer;
  const { [shape3]: _before, ...others } = shapes ?? {};
  const next = correction ? { ...others, [shape3]: correction } : others;
  return Object.keys(next).length > 0 ? { ...rest, shapes: next } : rest;
}

// src/core/show/edits/set-sound.ts
var OPTIONAL_PARTS = [
  "trimEndMs",
  "loops",
  "fadeInCurve",
  "fadeOutCurve",
  "levels",
  "name",
  "resting",
  "runsOn",
  "cleaned",
  "tailored"
];
var OPTIONAL = new Set(OPTIONAL_PARTS);
var { id: _id, ...PROPERTIES2 } = SOUND_PARTS;
var MAYBE = Object.fromEntries(
  Object.entries(PROPERTIES2).map(([name, schema]) => {
    if (!OPTIONAL.has(name)) return [name, maybe(schema)];
    return [name, maybe(orNull(schema.is === "maybe" ? schema.of : schema))];
  })
);
var setSound = {
  kind: "set-sound",
  parts: { slideId: SOUND_HOLDER, soundId: ID, properties: object(MAYBE) },
  apply(show, edit) {
    const there = soundsIn(show, edit.slideId);
    if (!there) return refused("slide-not-found");
    const sound = there.find((other) => other.id === edit.soundId);
    if (!sound) return refused("sound-not-found");
    const before = Object.fromEntries(
      Object.keys(edit.properties).map((name) => [name, sound[name] ?? null])
    );
    const sounds = there.map((other) => other === sound ? changed(sound, edit.properties) : other);
    return done(withSounds(show, edit.slideId, sounds), { ...edit, properties: before });
  },
  touched: (edit) => Object.keys(edit.properties).map((name) => placeOfSounds(edit.slideId, `${edit.soundId}/${name}`)),
  sentence({ properties }) {
    if ("gainDb" in properties) return "change the volume";
    if ("levels" in properties) return "change a level line";
    if ("name" in properties) return "name a take";
    if ("resting" in properties) return properties.resting ? "let a take rest" : "choose a take";
    if ("cleaned" in properties) return properties.cleaned ? "clean a voice" : "have a voice as it was recorded";
    if ("runsOn" in properties) return properties.runsOn ? "let a voice run on" : "let the slide wait for its voice";
    if ("tailored" in properties) return properties.tailored ? "tailor a song" : "have a song as it is";
    if ("loops" in properties) return properties.loops ? "let a song loop" : "stop a song from looping";
    if ("fadeInMs" in properties || "fadeOutMs" in properties) return "change a fade";
    return "starts" in properties || "ends" in properties ? "move a sound" : "change a sound";
  }
};
function changed(sound, properties) {
  const kept3 = Object.entries({ ...sound, ...properties }).filter(([, value]) => value !== null);
  return Object.fromEntries(kept3);
}

// src/core/show/edits/set-transitions.ts
var setTransitions = {
  kind: "set-transitions",
  parts: { transitions: many(object({ slideId: ID, transition: TRANSITION, by: maybe(orNull(CHOOSER)) })) },
  apply(show, edit) {
    const wanted = new Map(edit.transitions.map((entry) => [entry.slideId, entry]));
    const before = show.slides.filter((slide3) => wanted.has(slide3.id));
    if (before.length === 0) return refused("slide-not-found");
    return done(
      changeSlides(
        show,
        wanted,
        (slide3, { transition, by = "hand" }) => withChooser({ ...slide3, transition }, "transition", by)
      ),
      {
        kind: "set-transitions",
        transitions: before.map((slide3) => ({
          slideId: slide3.id,
          transition: slide3.transition,
          by: slide3.chosen?.transition ?? null
        }))
      }
    );
  },
  touched: (edit) => edit.transitions.map((entry) => placeOfSlide(entry.slideId, "transition")),
  sentence: (edit) => `change ${counted(edit.transitions.length, "transition")}`
};

// src/core/show/edits/set-waits.ts
var setWaits = {
  kind: "set-waits",
  parts: { slides: many(object({ slideId: ID, waits: truth })) },
  apply(show, edit) {
    const wanted = new Map(edit.slides.map((entry) => [entry.slideId, entry]));
    const before = show.slides.filter((slide3) => wanted.has(slide3.id));
    if (before.length === 0) return refused("slide-not-found");
    return done(
      changeSlides(show, wanted, (slide3, { waits }) => {
        const { waits: _waits, ...rest } = slide3;
        return waits ? { ...rest, waits: true } : rest;
      }),
      { kind: "set-waits", slides: before.map((slide3) => ({ slideId: slide3.id, waits: slide3.waits ?? false })) }
    );
  },
  touched: (edit) => edit.slides.map((entry) => placeOfSlide(entry.slideId, "waits")),
  sentence: (edit) => edit.slides.every(({ waits }) => waits) ? `let a showing wait on ${counted(edit.slides.length, "slide")}` : `let a showing go on by itself after ${counted(edit.slides.length, "slide")}`
};

// src/core/show/edits/set-watermark.ts
var setWatermark = {
  kind: "set-watermark",
  parts: { watermark: orNull(WATERMARK) },
  apply(show, edit) {
    const { watermark: before, ...rest } = show;
    return done(edit.watermark ? { ...rest, watermark: edit.watermark } : rest, {
      kind: "set-watermark",
      watermark: before ?? null
    });
  },
  touched: () => ["watermark"],
  sentence: ({ watermark }) => watermark ? "lay a watermark over the film" : "take the watermark away"
};

// src/core/show/words-of-slide.ts
function withWords(slide3, id, words2, by) {
  const layers = withChanged(slide3.layers, /* @__PURE__ */ new Map([[id, words2]]), (layer) => {
    if (layer.kind !== "words") return layer;
    const { style: _style, come: _come, travel: _travel, ...rest } = layer;
    return withChooser({ ...rest, ...words2 }, "words", by);
  });
  if (layers !== slide3.layers || layerIn(layers, id)) return { ...slide3, layers };
  return {
    ...slide3,
    layers: [...layers, withChooser({ kind: "words", id, ...words2 }, "words", by)]
  };
}
function textOf({ title, subtitle, place, style, come, travel }) {
  return { title, subtitle, place, ...style && { style }, ...come && { come }, ...travel && { travel } };
}

// src/core/show/edits/set-words.ts
var setWords = {
  kind: "set-words",
  parts: { ...LAYER_ADDRESS, words: orNull(object(WORDS_PARTS)), by: maybe(orNull(CHOOSER)) },
  apply(show, edit, nested) {
    const slide3 = slideOf(show, edit.slideId);
    if (!slide3) return refused("slide-not-found");
    const there = layerIn(slide3.layers, edit.layerId);
    if (there && there.kind !== "words") return refused("layer-already-there");
    if (!edit.words) return nested(show, { kind: "remove-layers", slideId: slide3.id, layerIds: [edit.layerId] });
    const { words: words2, by = "hand" } = edit;
    const changed2 = withWords(slide3, edit.layerId, words2, by);
    return done(putSlide(show, changed2), {
      ...edit,
      words: there ? textOf(there) : null,
      by: there?.chosen?.words ?? null
    });
  },
  touched: (edit) => [placeOfLayer(edit, "words")],
  sentence: (edit) => edit.words ? "change the words" : "remove the words"
};

// src/core/show/swap-file.ts
function withFileSwapped(show, from, to) {
  const change2 = (id) => id === from ? to : id;
  const cues = show.cues.map((cue) => changedInSound(cue, change2));
  return {
    ...show,
    slides: show.slides.map((slide3) => withFilesChanged(slide3, change2)),
    cues: cues.some((cue, index) => cue !== show.cues[index]) ? cues : show.cues
  };
}
function withFilesChanged(slide3, change2) {
  const layers = slide3.layers.map((layer) => changedInLayer(layer, change2));
  const backing = slide3.backing.kind === "picture" && change2(slide3.backing.assetId) !== slide3.backing.assetId ? { ...slide3.backing, assetId: change2(slide3.backing.assetId) } : slide3.backing;
  const { transition } = slide3;
  const pattern2 = transition.kind === "pattern" && typeof transition.pattern === "object" ? transition.pattern.assetId : null;
  const isOther = pattern2 !== null && change2(pattern2) !== pattern2;
  const sounds = slide3.sounds.map((sound) => changedInSound(sound, change2));
  const below = slide3.mounted?.before.map((one) => withFilesChanged(one, change2));
  const same = (below ?? []).every((one, index) => one === slide3.mounted.before[index]) && layers.every((layer, index) => layer === slide3.layers[index]) && backing === slide3.backing && !isOther && sounds.every((sound, index) => sound === slide3.sounds[index]);
  if (same) return slide3;
  return {
    ...slide3,
    layers,
    backing,
    sounds,
    transition: isOther ? { ...transition, pattern: { assetId: change2(pattern2) } } : transition,
    ...slide3.mounted && { mounted: { ...slide3.mounted, before: below } }
  };
}
function changedInSound(sound, change2) {
  const assetId2 = change2(sound.assetId);
  if (assetId2 === sound.assetId) return sound;
  const { cleaned: _cleaned, ...rest } = sound;
  return { ...rest, assetId: assetId2 };
}
function changedInLayer(layer, change2) {
  switch (layer.kind) {
    case "picture": {
      const assetId2 = change2(layer.assetId);
      const back = layer.back && change2(layer.back.assetId);
      if (assetId2 === layer.assetId && back === layer.back?.assetId) return layer;
      return { ...layer, assetId: assetId2, ...back && { back: { assetId: back } } };
    }
    case "clip":
    case "drawing": {
      const assetId2 = change2(layer.assetId);
      return assetId2 === layer.assetId ? layer : { ...layer, assetId: assetId2 };
    }
    case "box": {
      const sides = Object.entries(layer.faces).map(
        ([side, face]) => [
          side,
          face.kind === "picture" && change2(face.assetId) !== face.assetId ? { ...face, assetId: change2(face.assetId) } : face
        ]
      );
      const changed2 = sides.some(([side, face]) => face !== layer.faces[side]);
      return changed2 ? { ...layer, faces: Object.fromEntries(sides) } : layer;
    }
    case "group": {
      const layers = layer.layers.map((inner) => changedInLayer(inner, change2));
      return layers.some((inner, index) => inner !== layer.layers[index]) ? { ...layer, layers } : layer;
    }
    case "words":
    case "shape":
    case "gradient":
    case "solid":
      return layer;
    default:
      return unreachable(layer);
  }
}

// src/core/show/edits/swap-file.ts
var swapFile = {
  kind: "swap-file",
  parts: { from: HASH, to: HASH },
  apply(show, edit) {
    const swapped = withFileSwapped(show, edit.from, edit.to);
    const before = show.slides.filter((slide3, index) => slide3 !== swapped.slides[index]);
    const back = [];
    if (before.length > 0) back.push({ kind: "put-slides", slides: before });
    if (swapped.cues !== show.cues) back.push({ kind: "set-cues", cues: show.cues });
    if (back.length === 0) return refused("file-not-used");
    return done(swapped, { kind: "together", name: swapFile.sentence(edit), edits: back });
  },
  touched: (edit) => [`files/${edit.from}`],
  sentence: () => "swap a file"
};

// src/core/show/edits/together.ts
var together = (anyEdit) => ({
  kind: "together",
  parts: { name: text(LONGEST_NAME, 1), edits: list(later(anyEdit), MOST_EDITS_TOGETHER, 1) },
  apply(show, edit, nested) {
    let after = show;
    const inverses = [];
    for (const inner of edit.edits) {
      const result = nested(after, inner);
      if (!result.ok) return result;
      after = result.show;
      inverses.unshift(result.inverse);
    }
    return done(after, { kind: "together", name: edit.name, edits: inverses });
  },
  touched: (edit, nested) => edit.edits.flatMap(nested),
  sentence: (edit) => edit.name
});

// src/core/show/edits/edit-records.ts
var EDIT_RECORDS = {
  "add-slides": addSlides,
  "remove-slides": removeSlides,
  "move-slides": moveSlides,
  "set-lengths": setLengths,
  "set-transitions": setTransitions,
  "set-choosers": setChoosers,
  "add-layers": addLayers,
  "remove-layers": removeLayers,
  "place-layers": placeLayers,
  "put-layer": putLayer,
  "set-layers": setLayers,
  "set-layer-properties": setLayerProperties,
  "set-channels": setChannels,
  "set-key": setKey,
  "set-words": setWords,
  "set-move": setMove2,
  "set-crops": setCrops,
  "set-light": setLight,
  "set-edge": setEdge,
  "set-backing": setBacking,
  "set-shape": setShape,
  "add-sounds": addSounds,
  "remove-sounds": removeSounds,
  "set-sound": setSound,
  "set-cues": setCues,
  "set-default-length": setDefaultLength,
  "rename-show": renameShow,
  "set-marks": setMarks,
  "set-clocks": setClocks,
  "set-focus": setFocus,
  "set-temperament": setTemperament,
  "set-beats": setBeats,
  "set-pace": setPace,
  "set-mix": setMix,
  "set-chapters": setChapters,
  "set-scripts": setScripts,
  "set-breaths": setBreaths,
  "set-captions": setCaptions,
  "set-caption-look": setCaptionLook,
  "set-waits": setWaits,
  "let-be": letBe,
  "set-licences": setLicences,
  "set-methods": setMethods,
  "set-plumage": setPlumage,
  "set-watermark": setWatermark,
  "swap-file": swapFile,
  "put-slides": putSlides,
  "set-content": setContent,
  together: together(() => EDIT)
};
function recordOf2(edit) {
  return EDIT_RECORDS[edit.kind];
}
var EDIT = checked(
  {
    is: "kinds",
    by: "kind",
    kinds: Object.fromEntries(
      Object.entries(EDIT_RECORDS).map(([kind, record2]) => [kind, record2.parts])
    )
  },
  (edit) => recordOf2(edit).fault?.(edit) ?? null
);

// src/core/show/new-slide.ts
function slideFromAsset(asset, facts2, lengthMs, newId2) {
  if (facts2.kind === "sound") throw new TypeError("a slide shows a picture or a clip, got a sound");
  const layer = layerFromAsset(asset, facts2, newId2);
  return {
    id: slideId(newId2()),
    lengthMs: facts2.kind === "clip" ? Math.max(SHORTEST_SLIDE_MS, Math.round(facts2.lengthMs)) : lengthMs,
    transition: DEFAULT_TRANSITION,
    backing: { kind: "automatic" },
    layers: [layer],
    sounds: []
  };
}
function layerFromAsset(asset, facts2, newId2) {
  if (facts2.kind === "sound") throw new TypeError("a layer shows a picture or a clip, got a sound");
  return facts2.kind === "clip" ? { kind: "clip", id: layerId(newId2()), assetId: asset, trimStartMs: 0, soundGainDb: 0 } : { kind: "picture", id: layerId(newId2()), assetId: asset, move: { kind: "automatic" } };
}

// src/core/show/spoken-over.ts
function spokenJoined(slides, newId2) {
  const isRow = slides.filter((slide3) => slide3.sounds.length > 0 || slide3.captions).length > 1;
  const taken = /* @__PURE__ */ new Set();
  let startMs = 0;
  const sounds = [];
  const scripts = [];
  const captions = {};
  for (const slide3 of slides) {
    for (const sound of slide3.sounds) {
      const id = taken.has(sound.id) ? newId2(sound.id, slide3) : sound.id;
      taken.add(id);
      sounds.push({ ...sound, id, starts: { at: "here", offsetMs: offsetHereMs(sound) + startMs } });
    }
    if (slide3.script) scripts.push(slide3.script);
    for (const [language, list2] of Object.entries(slide3.captions ?? {}))
      captions[language] = [...captions[language] ?? [], ...list2.map((one) => shifted(one, startMs))];
    if (isRow) startMs += slide3.lengthMs;
  }
  const breath = slides.find((slide3) => slide3.sounds.length > 0)?.breath;
  return {
    lengthMs: isRow ? startMs : Math.max(...slides.map((slide3) => slide3.lengthMs)),
    sounds,
    ...scripts.length > 0 && { script: scripts.join("\n") },
    ...Object.keys(captions).length > 0 && { captions: withoutOverlaps(captions) },
    ...breath && { breath }
  };
}
function withoutOverlaps(captions) {
  const clipped = (list2) => list2.map((one, at3) => ({ ...one, toMs: Math.min(one.toMs, list2[at3 + 1]?.fromMs ?? Infinity) }));
  return Object.fromEntries(Object.entries(captions).map(([language, list2]) => [language, clipped(list2)]));
}
var shifted = (caption, byMs) => ({
  ...caption,
  fromMs: Math.round(caption.fromMs + byMs),
  toMs: Math.round(caption.toMs + byMs)
});

// src/core/show/layout.ts
function picturesOf(slide3) {
  const isPicture = (layer) => layer.kind === "picture" || layer.kind === "clip";
  const own = slide3.layers.filter(isPicture);
  return own.length > 0 ? own : [...everyLayer(slide3.layers)].filter(isPicture);
}

// src/core/mounts/mount.ts
var WINDOW_PREFIX = "0".repeat(60);
function windowId(number2) {
  return `${WINDOW_PREFIX}${number2.toString(16).padStart(4, "0")}`;
}
function windowNumber(id) {
  return id.startsWith(WINDOW_PREFIX) ? parseInt(id.slice(WINDOW_PREFIX.length), 16) : null;
}
function pictureWindows({ windows: windows2 }) {
  return windows2.flatMap((window, index) => window.takes === "picture" ? [index] : []);
}
var takesOf = (fit) => pictureWindows(fit).length;

// src/core/mounts/window-places.ts
function windowAspects(fit, frame) {
  const aspect = frame.widthPx / frame.heightPx;
  const found = /* @__PURE__ */ new Map();
  for (const slide3 of fit.slides)
    for (const layer of everyLayer(slide3.layers)) {
      if (layer.kind !== "picture") continue;
      const number2 = windowNumber(layer.assetId);
      if (number2 === null || found.has(number2)) continue;
      const { width, height } = layer.channels ?? {};
      const at3 = (channel2) => channel2 === void 0 ? null : valueAt(channel2, slide3.lengthMs, slide3.lengthMs);
      const [w, h] = [at3(width), at3(height)];
      found.set(number2, w === null || h === null ? aspect : w / h * aspect);
    }
  return fit.windows.map((_, index) => found.get(index + 1) ?? 1);
}

// src/core/mounts/deal-out.ts
function dealtOut({ fits, frame, aspects, fit, tooFew, tooMany }) {
  const usable = fit === null ? fits : fits.filter((one) => one.name === fit);
  const counts = [...new Set(usable.map(takesOf))].sort((one, other) => one - other);
  const most = counts.at(-1) ?? 0;
  const all = aspects.map((_, index) => index);
  if (most === 0) return { runs: usable[0] ? [{ fit: usable[0], filled: [] }] : [], left: all };
  const taken = tooMany === "leave" ? all.slice(0, most) : all;
  const runs = shares(taken.length, counts).map(({ from, count }) => {
    const own = taken.slice(from, from + count);
    const chosen = fitFor(
      usable,
      own.map((index) => aspects[index])
    );
    return { fit: chosen, filled: placed(chosen, frame, own, aspects, tooFew) };
  });
  return { runs, left: all.slice(taken.length) };
}
function fitFor(fits, aspects) {
  const roomy = fits.filter((fit) => takesOf(fit) >= aspects.length);
  const count = roomy.length > 0 ? Math.min(...roomy.map(takesOf)) : Math.max(...fits.map(takesOf));
  const same = fits.filter((fit) => takesOf(fit) === count);
  const suits = suitsOf(aspects);
  return same.find((fit) => fit.suits === suits) ?? same.find((fit) => fit.suits === "any") ?? same[0];
}
var CLEARLY = 1.15;
function suitsOf(aspects) {
  const counted2 = { wide: 0, upright: 0, square: 0 };
  for (const aspect of aspects) counted2[aspect > CLEARLY ? "wide" : aspect < 1 / CLEARLY ? "upright" : "square"] += 1;
  const [name, count] = Object.entries(counted2).sort(([, one], [, other]) => other - one)[0];
  return count > aspects.length / 2 ? name : "any";
}
function shares(total, counts) {
  const most = counts.at(-1);
  const runs = Math.max(1, Math.ceil(total / most));
  const found = [];
  let from = 0;
  for (let left = runs; left > 0; left -= 1) {
    const wanted = Math.ceil((total - from) / left);
    const count = counts.includes(wanted) ? wanted : counts.findLast((one) => one <= wanted) ?? wanted;
    found.push({ from, count: Math.min(count, total - from) });
    from += found.at(-1).count;
  }
  while (from < total) {
    const rest = total - from;
    const count = Math.min(rest, counts.findLast((one) => one <= rest) ?? rest);
    found.push({ from, count });
    from += count;
  }
  return found;
}
var WORTH_IT = 0.35;
function placed(fit, frame, own, aspects, tooFew) {
  const windows2 = pictureWindows(fit);
  const shapes = windowAspects(fit, frame);
  const order2 = windows2.map(
    (_, at3) => at3 < own.length ? own[at3] : tooFew === "empty" || own.length === 0 ? null : own[at3 % own.length]
  );
  const price = (at3, picture2) => picture2 === null ? 0 : Math.abs(Math.log(aspects[picture2] / shapes[windows2[at3]]));
  for (let one = 0; one < order2.length; one += 1)
    for (let other = one + 1; other < order2.length; other += 1) {
      if (order2[one] === null || order2[other] === null) continue;
      const now = price(one, order2[one]) + price(other, order2[other]);
      const then = price(one, order2[other]) + price(other, order2[one]);
      if (now - then > WORTH_IT * 2) [order2[one], order2[other]] = [order2[other], order2[one]];
    }
  return order2;
}

// src/core/mounts/sum.ts
function sumOf(slide3) {
  const fillable = new Set((slide3.mounted?.words ?? []).map(({ layerId: layerId2, part }) => `${layerId2} ${part}`));
  const layers = mapped2(slide3.layers, (layer) => {
    const { chosen: _chosen, bare: _bare, ...rest } = layer;
    if (rest.kind !== "words") return rest;
    return {
      ...rest,
      title: fillable.has(`${layer.id} title`) ? "" : rest.title,
      subtitle: fillable.has(`${layer.id} subtitle`) ? "" : rest.subtitle
    };
  });
  const text2 = JSON.stringify([layers, slide3.backing]);
  return [0, 1].map((salt) => Math.floor(seedOf(text2, salt) * 2 ** 32).toString(36)).join("");
}

// src/core/mounts/take-off.ts
function runsAt(show, ids) {
  const wanted = new Set(ids);
  return new Set(show.slides.flatMap((slide3) => slide3.mounted && wanted.has(slide3.id) ? [slide3.mounted.run] : []));
}
function withTakenOff(show, runs, newId2) {
  if (runs.size === 0) return { show, slideIds: [] };
  const present = new Set(show.slides.map(({ id }) => id));
  const back = [];
  const heirs = /* @__PURE__ */ new Map();
  const ties = [];
  const slides = [];
  let orphans = [];
  let chapter = null;
  for (const slide3 of show.slides) {
    const { mounted } = slide3;
    if (!mounted || !runs.has(mounted.run)) {
      for (const id of orphans) heirs.set(id, slide3.id);
      orphans = [];
      slides.push(chapter !== null && slide3.chapter === void 0 ? { ...slide3, chapter } : slide3);
      chapter = null;
      continue;
    }
    const restored = mounted.before.map((below) => {
      const own = withLaterLight(below, slide3);
      const id = present.has(own.id) ? slideId(newId2()) : own.id;
      present.add(id);
      return id === own.id ? own : { ...own, id };
    });
    ties.push(...(mounted.ties ?? []).map((tie) => ({ ...tie, at: slide3.id })));
    if (restored.length === 0) {
      orphans.push(slide3.id);
      chapter = slide3.chapter ?? chapter;
      continue;
    }
    heirs.set(slide3.id, restored[0].id);
    for (const id of orphans) heirs.set(id, restored[0].id);
    orphans = [];
    chapter = null;
    back.push(...restored.map(({ id }) => id));
    slides.push(...restored);
  }
  const retied = (sound) => tiedElsewhere(sound, heirs, ties);
  return {
    show: {
      ...show,
      slides: slides.map((slide3) => withRetied(slide3, retied)),
      cues: kept2(show.cues, retied)
    },
    slideIds: back
  };
}
function withLaterLight(below, laid) {
  const now = /* @__PURE__ */ new Map();
  for (const layer of picturesOf(laid)) if (!now.has(layer.assetId)) now.set(layer.assetId, layer);
  const layers = mapped2(below.layers, (layer) => {
    if (layer.kind !== "picture" && layer.kind !== "clip") return layer;
    const other = now.get(layer.assetId);
    if (!other) return layer;
    let after = layer;
    if (other.chosen?.light === "hand" && JSON.stringify(other.light) !== JSON.stringify(layer.light)) {
      const { light: _light, ...rest } = after;
      after = other.light ? { ...rest, light: other.light } : rest;
    }
    if (after.kind === "picture" && other.kind === "picture" && JSON.stringify(after.crop) !== JSON.stringify(other.crop)) {
      const { crop: _crop, ...rest } = after;
      after = other.crop ? { ...rest, crop: other.crop } : rest;
    }
    return after;
  });
  return layers === below.layers ? below : { ...below, layers };
}
function tiedElsewhere(sound, heirs, ties) {
  let after = sound;
  for (const part of ["starts", "ends"]) {
    const tied = sound[part];
    if (tied.at !== "slide" || !heirs.has(tied.slideId)) continue;
    const was = ties.find((tie) => tie.soundId === sound.id && tie.part === part && tie.at === tied.slideId);
    const heir = was?.slideId ?? heirs.get(tied.slideId);
    if (heir) after = { ...after, [part]: { ...tied, slideId: heir } };
  }
  return after;
}
function withRetied(slide3, change2) {
  const sounds = kept2(slide3.sounds, change2);
  return sounds === slide3.sounds ? slide3 : { ...slide3, sounds };
}
function kept2(values, change2) {
  const changed2 = values.map(change2);
  return changed2.some((value, index) => value !== values[index]) ? changed2 : values;
}

// src/core/mounts/words-for.ts
function wordsFor(field2, source) {
  const said = source.said[field2.name];
  if (said !== void 0) return said;
  const { show, slides, facts: facts2, studio } = source;
  switch (field2.from) {
    case "own":
      return source.own;
    case "words":
      return wordsOn(slides, field2.part) ?? captionIn(slides, facts2) ?? "";
    case "title":
      return wordsOn(slides, "title") ?? show.title;
    case "dates":
      return datesOf(source.ofAll ? show.slides : slides, facts2, show.language ?? USUAL_LANGUAGE);
    case "chapter":
      return slides.find((slide3) => slide3.chapter)?.chapter ?? wordsOn(slides, "title") ?? "";
    case "studio":
      return studio.name;
    case "contact":
      return studio.contact;
    case "credits":
      return creditsOf(show, facts2, studio);
    default:
      return unreachable(field2.from);
  }
}
function wordsOn(slides, part) {
  for (const slide3 of slides)
    for (const layer of everyLayer(slide3.layers))
      if (layer.kind === "words" && layer.title.trim() !== "") return layer[part];
  return null;
}
function captionIn(slides, facts2) {
  for (const slide3 of slides)
    for (const { assetId: assetId2 } of picturesOf(slide3)) {
      const known = facts2.get(assetId2);
      if (known?.kind === "picture" && known.caption) return known.caption;
    }
  return null;
}
function datesOf(slides, facts2, language) {
  const days = slides.flatMap((slide3) => picturesOf(slide3)).flatMap(({ assetId: assetId2 }) => {
    const known = facts2.get(assetId2);
    return known && known.kind !== "sound" && known.takenAt ? [known.takenAt.slice(0, 10)] : [];
  }).sort();
  const [first, last] = [days[0], days.at(-1)];
  if (first === void 0 || last === void 0) return "";
  const format = new Intl.DateTimeFormat(language === "en" ? "en-GB" : language, {
    dateStyle: "long",
    timeZone: "UTC"
  });
  const [from, to] = [/* @__PURE__ */ new Date(`${first}T00:00:00Z`), /* @__PURE__ */ new Date(`${last}T00:00:00Z`)];
  return Number.isNaN(from.getTime()) || Number.isNaN(to.getTime()) ? "" : format.formatRange(from, to);
}
function creditsOf(show, facts2, studio) {
  const lines2 = [];
  if (studio.name) lines2.push(`Photographs	${studio.name}`, "");
  const songs = [...new Set(show.cues.filter(({ kind }) => kind === "song").map(({ assetId: assetId2 }) => assetId2))];
  for (const song of songs) {
    const known = facts2.get(song);
    if (known?.kind !== "sound" || !known.title) continue;
    lines2.push(`Music	${known.artist ? `${known.title}, ${known.artist}` : known.title}`);
  }
  const licences = [...new Set(Object.values(show.licences ?? {}))];
  if (licences.length > 0) lines2.push("", ...licences);
  if (studio.contact) lines2.push("", studio.contact);
  return lines2.join("\n").trim();
}

// src/core/mounts/lay-mount.ts
function groundOf(show, chosen, newId2) {
  const runs = runsAt(show, chosen);
  const off = withTakenOff(show, runs, newId2);
  const ids = /* @__PURE__ */ new Set([...off.slideIds, ...chosen]);
  const slides = off.show.slides.filter(({ id }) => ids.has(id));
  return {
    show: off.show,
    slideIds: slides.map(({ id }) => id),
    subjects: slides.flatMap((slide3) => picturesOf(slide3).map((layer) => ({ slide: slide3, layer })))
  };
}
function aspectsOf(subjects, facts2) {
  return subjects.map(({ layer }) => {
    const known = facts2.get(layer.assetId);
    if (!known || known.kind === "sound") return 1;
    const crop = layer.kind === "picture" ? layer.crop : void 0;
    return crop ? crop.width * known.widthPx / (crop.height * known.heightPx) : known.widthPx / known.heightPx;
  });
}
var no = (sentence) => ({ ok: false, sentence });
function withMount(ground, given) {
  const { mount, look: look2, facts: facts2, newId: newId2 } = given;
  const { show, subjects } = ground;
  const fits = mount.fits(show.frame, look2);
  const wanted = given.fit === void 0 ? fits : fits.filter(({ name }) => name === given.fit);
  if (wanted.length === 0) return no(`\u201C${mount.name}\u201D has no fit of that name.`);
  const takes = Math.max(...wanted.map(takesOf));
  if (takes > 0 && subjects.length === 0) return no(`\u201C${mount.name}\u201D takes pictures: choose slides that have some.`);
  const dealt3 = given.dealt ?? dealFor(ground, given);
  const faults = dealt3.runs.map((run) => faultOfRun(run, subjects, facts2, given));
  const fault = faults.find((one) => one !== null);
  if (fault) return no(fault);
  const taken = /* @__PURE__ */ new Set();
  const laid = dealt3.runs.map((run) => {
    const made2 = laidRun(ground, run, given, newId2(), taken);
    for (const slide3 of made2.below) taken.add(slide3);
    return made2;
  });
  return takes === 0 ? placedBeside(ground, laid[0]?.slides ?? [], mount) : placedInstead(ground, laid);
}
function dealFor({ show, subjects }, { mount, look: look2, facts: facts2, fit, tooFew = "repeat", tooMany = "again" }) {
  return dealtOut({
    fits: mount.fits(show.frame, look2),
    frame: show.frame,
    aspects: aspectsOf(subjects, facts2),
    fit: fit ?? null,
    tooFew,
    tooMany
  });
}
function faultOfRun({ fit, filled: filled2 }, subjects, facts2, given) {
  if (fit.windows.some(({ takes }) => takes === "logo") && !given.studio.logo)
    return "This mount shows your logo. Put one into the studio\u2019s profile first.";
  const windows2 = pictureWindows(fit);
  for (const [at3, index] of filled2.entries()) {
    const window = fit.windows[windows2[at3]];
    const known = index === null ? null : facts2.get(subjects[index].layer.assetId);
    if (window.stills && known?.kind === "clip")
      return `\u201C${window.name}\u201D takes pictures only, and a clip would go there. Put a picture in its place.`;
  }
  return null;
}
function laidRun({ show, subjects, slideIds }, run, given, id, taken) {
  const { fit, filled: filled2 } = run;
  const { mount, facts: facts2, studio, said = {}, role, newId: newId2 } = given;
  const used = filled2.flatMap((index) => index === null ? [] : [subjects[index]]);
  const below = show.slides.filter((slide3) => !taken.has(slide3) && used.some((subject) => subject.slide === slide3));
  const near = below.length > 0 ? below : besideSlides(show, slideIds, mount);
  const windows2 = pictureWindows(fit);
  const spare = used[0] ?? null;
  const subjectOf = (number2) => {
    const at3 = windows2.indexOf(number2 - 1);
    if (at3 < 0) return null;
    const index = filled2[at3] ?? null;
    return index === null ? null : subjects[index];
  };
  const fileOf = (file) => {
    const number2 = windowNumber(file);
    if (number2 === null) return file;
    if (fit.windows[number2 - 1]?.takes === "logo") return studio.logo ?? file;
    return (subjectOf(number2) ?? spare)?.layer.assetId ?? file;
  };
  const holders = holdersOf(run, subjects, below);
  const slides = fit.slides.map((design, index) => {
    const before = below.filter((slide3) => holders.get(slide3) === index);
    const filledIn = withFilesChanged(
      { ...design, id: slideId(newId2()), layers: mapped2(design.layers, (layer) => inWindow(layer, subjectOf, facts2)) },
      fileOf
    );
    const words2 = fit.words.filter(({ slide: slide3 }) => slide3 === index);
    const layers = mapped2(filledIn.layers, (layer) => {
      if (layer.kind !== "words") return layer;
      return words2.filter((field2) => field2.layerId === layer.id).reduce(
        (now, field2) => ({
          ...now,
          [field2.part]: wordsFor(field2, {
            show,
            facts: facts2,
            studio,
            slides: near,
            ofAll: mount.goes === "after" || role === "opener" || mount.shelf === "Openers",
            said,
            own: layer[field2.part]
          })
        }),
        layer
      );
    });
    const isFirst = index === 0;
    const held = isFirst && before[0]?.chosen?.transition === "hand" ? before[0] : null;
    const mounted = {
      run: id,
      mount: { id: mount.id, name: mount.name },
      fit: fit.name,
      before,
      ...words2.length > 0 && {
        words: words2.map(({ layerId: layer, part, name }) => ({ layerId: layer, part, name }))
      },
      ...isFirst && Object.keys(said).length > 0 && { said },
      ...isFirst && filled2.length > 0 && { filled: filled2 },
      sum: "0",
      ...role && { role }
    };
    const made2 = withLoupe(
      withSpokenOf(
        { ...filledIn, layers, mounted, ...held && { transition: held.transition, chosen: { transition: "hand" } } },
        before
      ),
      fit.loupeOver && layerIn(layers, fit.loupeOver) ? fit.loupeOver : null,
      show,
      facts2
    );
    return { ...made2, mounted: { ...mounted, sum: sumOf(made2) } };
  });
  return { slides, below };
}
function holdersOf({ fit, filled: filled2 }, subjects, below) {
  const windows2 = pictureWindows(fit);
  const slideOfWindow = (window) => Math.max(
    0,
    fit.slides.findIndex((slide3) => {
      let found = false;
      withFilesChanged(slide3, (file) => {
        found ||= windowNumber(file) === window + 1;
        return file;
      });
      return found;
    })
  );
  return new Map(
    below.map((slide3) => {
      const at3 = filled2.findIndex((index) => index !== null && subjects[index].slide === slide3);
      return [slide3, slideOfWindow(windows2[at3])];
    })
  );
}
function inWindow(layer, subjectOf, facts2) {
  if (layer.kind !== "picture") return layer;
  const number2 = windowNumber(layer.assetId);
  if (number2 === null) return layer;
  const subject = subjectOf(number2);
  if (!subject) return { ...layer, hidden: true };
  const { layer: from } = subject;
  const light = from.light || layer.light ? { light: { ...from.light, ...layer.light } } : {};
  const flip = from.flip ? { flip: from.flip } : {};
  if (from.kind === "picture")
    return { ...layer, assetId: from.assetId, ...from.crop && { crop: from.crop }, ...flip, ...light };
  const { move: _move, crop: _crop, back: _back, kind: _kind, assetId: _asset, ...parts } = layer;
  const known = facts2.get(from.assetId);
  return {
    ...parts,
    kind: "clip",
    assetId: from.assetId,
    trimStartMs: from.trimStartMs,
    soundGainDb: known?.kind === "clip" && known.hasSound ? from.soundGainDb : -60,
    ...from.speed !== void 0 && { speed: from.speed },
    ...flip,
    ...light
  };
}
function withSpokenOf(slide3, before) {
  if (before.length === 0) return slide3;
  const { lengthMs, sounds, ...spoken } = spokenJoined(before, (id, of) => cueId(`${id}-${of.id}`.slice(0, 40)));
  const chapter = before.find((one) => one.chapter !== void 0)?.chapter ?? slide3.chapter;
  const isSpoken = sounds.some(({ kind }) => kind === "voice") || spoken.captions !== void 0;
  return {
    ...slide3,
    ...spoken,
    lengthMs: isSpoken ? Math.max(slide3.lengthMs, lengthMs) : slide3.lengthMs,
    sounds: [...slide3.sounds, ...sounds],
    ...chapter !== void 0 && { chapter },
    ...before.some(({ waits }) => waits) && { waits: true }
  };
}
function withLoupe(slide3, over, show, facts2) {
  const base2 = over === null ? null : layerIn(slide3.layers, layerId(over));
  if (!base2 || base2.kind !== "picture") return slide3;
  const { places: places2 } = placesFound(base2, facts2, show.focus);
  const plan = { ...USUAL_LOUPE, places: places2 };
  const long = { ...slide3, lengthMs: Math.max(slide3.lengthMs, loupeNeedsMs(plan)) };
  const prepared = prepareShow({ ...show, slides: [long], cues: [], captionLook: void 0 }, facts2);
  const held = withHeldMove(base2, prepared.moves.get(slide3.id)?.get(base2.id));
  const made2 = loupe(surroundingsOf(prepared, 0, show.frame), base2, plan, layerId("loupe"));
  return { ...long, layers: long.layers.flatMap((layer) => layer.id === base2.id ? [held, made2] : [layer]) };
}
function besideSlides(show, ids, mount) {
  const chosen = show.slides.filter(({ id }) => ids.includes(id));
  const one = mount.goes === "before" ? chosen[0] ?? show.slides[0] : chosen.at(-1) ?? show.slides.at(-1);
  return one ? [one] : [];
}
function placedBeside(ground, slides, mount) {
  const { show, slideIds } = ground;
  const beside = besideSlides(show, slideIds, mount)[0];
  if (slides.length === 0) return no(`\u201C${mount.name}\u201D is empty.`);
  const isBefore = mount.goes === "before";
  const chapter = isBefore ? beside?.chapter : void 0;
  const own = chapter === void 0 ? slides : [{ ...slides[0], chapter }, ...slides.slice(1)];
  const without = (slide3) => {
    const { chapter: _chapter, ...rest } = slide3;
    return chapter === void 0 ? slide3 : rest;
  };
  const order2 = beside ? show.slides.flatMap(
    (slide3) => slide3 !== beside ? [slide3] : isBefore ? [...own, without(slide3)] : [slide3, ...own]
  ) : own;
  return { ok: true, show: { ...show, slides: order2 }, slideIds: own.map(({ id }) => id) };
}
function placedInstead({ show }, laid) {
  const standIn = /* @__PURE__ */ new Map();
  const runs = /* @__PURE__ */ new Map();
  const gone = /* @__PURE__ */ new Set();
  let last = null;
  for (const { below, slides: slides2 } of laid) {
    for (const slide3 of below) gone.add(slide3);
    for (const slide3 of slides2) for (const { id } of slide3.mounted.before) standIn.set(id, slide3.id);
    last = below[0] ?? last;
    if (last) runs.set(last, [...runs.get(last) ?? [], ...slides2]);
  }
  const ties = /* @__PURE__ */ new Map();
  const retied = (sound) => {
    let after = sound;
    for (const part of ["starts", "ends"]) {
      const tied = sound[part];
      const to = tied.at === "slide" ? standIn.get(tied.slideId) : void 0;
      if (tied.at !== "slide" || !to) continue;
      ties.set(to, [...ties.get(to) ?? [], { soundId: sound.id, part, slideId: tied.slideId }]);
      after = { ...after, [part]: { ...tied, slideId: to } };
    }
    return after;
  };
  const cues = kept2(show.cues, retied);
  const slides = show.slides.flatMap((slide3) => runs.get(slide3) ?? (gone.has(slide3) ? [] : [slide3])).map((slide3) => withRetied(slide3, retied));
  return {
    ok: true,
    show: {
      ...show,
      cues,
      slides: slides.map(
        (slide3) => ties.has(slide3.id) ? { ...slide3, mounted: { ...slide3.mounted, ties: ties.get(slide3.id) } } : slide3
      )
    },
    slideIds: [...runs.values()].flat().map(({ id }) => id)
  };
}

// src/core/builds/lanterns.ts
var FEWEST_LANTERNS = 4;
var MOST_LANTERNS = 36;
var USUAL_LANTERNS = {
  shape: "arch",
  overMs: 7e3,
  beginMs: 300,
  colour: "#c98a0c"
};
var CAMERA2 = 3.1;
var RISE = 0.62;
var LOOKED_AT_MS = 3e3;
function lanternsNeedMs({ beginMs, overMs }) {
  return beginMs + overMs + LOOKED_AT_MS;
}
function lanterns(plan, frame, id) {
  const count = plan.pictures.length;
  if (count < FEWEST_LANTERNS || count > MOST_LANTERNS)
    throw new RangeError(`there are ${FEWEST_LANTERNS} to ${MOST_LANTERNS} lanterns, got ${count}`);
  const aspect = frame.widthPx / frame.heightPx;
  const { spots, side, radius = 0 } = gathered(plan.shape, count, aspect);
  const boxes = spots.map((spot, index) => box(plan, index, spot, side, aspect, radius, `${id}-${index + 1}`));
  const end = plan.beginMs + plan.overMs;
  const ring2 = {
    kind: "group",
    id: layerId(`${id}-ring`),
    name: "ring",
    channels: {
      tiltYDegrees: { keys: [key(plan.beginMs, -150), key(end, 0, "linear"), stretched(1, 24)] },
      tiltXDegrees: -8,
      z: -radius
    },
    layers: boxes
  };
  return {
    kind: "group",
    id,
    name: "Lanterns",
    space: { distance: { keys: [key(plan.beginMs, CAMERA2), key(end, 2.6), stretched(1, 2.45)] } },
    layers: plan.shape === "ring" ? [ring2] : boxes
  };
}
function box(plan, index, spot, side, aspect, awayBy, id) {
  const { pictures, beginMs, overMs } = plan;
  const face = (by) => ({ kind: "picture", assetId: pictures[(index + by) % pictures.length] });
  const lid = { kind: "colour", colour: plan.colour };
  const random = (what) => seedOf(`lantern ${index} ${what}`, 1);
  const start2 = beginMs + 0.34 * overMs * index / pictures.length;
  const up = start2 + 0.36 * overMs;
  const there = beginMs + overMs * (0.86 + 0.14 * index / pictures.length);
  const float = floating(index, pictures.length, aspect);
  const path3 = (from, over, to) => ({
    smooth: true,
    keys: [key(start2, from, "linear"), key(up, over, "linear"), key(there, to)]
  });
  const spins = (random("spin") < 0.5 ? -1 : 1) * (random("twice") < 0.4 ? 450 : 270);
  return {
    kind: "box",
    id: layerId(id),
    name: `lantern ${index + 1}`,
    depth: side,
    faces: { front: face(0), right: face(1), back: face(2), left: face(3), top: lid, bottom: lid },
    channels: {
      x: path3(0.5 + float.x * 0.8 / aspect, 0.5 + float.x / aspect, 0.5 + spot.x / aspect),
      y: path3(0.5 + (0.54 + side) * (1 - (float.z - awayBy) / CAMERA2), 0.5 + float.y, 0.5 + spot.y),
      z: path3(float.z, float.z, spot.z),
      width: side / aspect,
      height: side,
      tiltYDegrees: { keys: [key(start2, spot.tiltYDegrees + spins), key(there, spot.tiltYDegrees)] },
      tiltXDegrees: { keys: [key(start2, 30 * (random("lean") - 0.5)), key(there, 0)] }
    }
  };
}
function floating(index, count, aspect) {
  const across = Math.ceil(Math.sqrt(count * aspect * 1.3));
  const down = Math.ceil(count / across);
  const cell = index * steady(across * down) % (across * down);
  const [column2, row] = [cell % across, Math.floor(cell / across)];
  return {
    x: ((column2 + 0.5) / across - 0.5) * aspect * 0.95,
    y: ((row + 0.5) / down - 0.5) * 0.75,
    z: -0.85 + 0.38 * ((column2 + 2 * row) % 4)
  };
}
function steady(count) {
  const divides = (a, b) => b === 0 ? a : divides(b, a % b);
  let step2 = Math.max(1, Math.round(count * 0.618));
  while (divides(count, step2) > 1) step2 += 1;
  return step2;
}
function gathered(shape3, count, aspect) {
  switch (shape3) {
    case "wall": {
      const across = Math.ceil(Math.sqrt(count * aspect * 0.8));
      const down = Math.ceil(count / across);
      const step2 = Math.min(0.88 * aspect / across, 0.82 / down);
      return { side: step2 * 0.9, spots: rows(evenly(count, down), step2, step2) };
    }
    case "stack": {
      let down = 1;
      while (down * (down + 1) / 2 < count) down += 1;
      const lengths = [];
      for (let row = down, left = count; left > 0; row -= 1) {
        lengths.unshift(Math.min(row, left));
        left -= row;
      }
      const step2 = Math.min(0.86 * aspect / Math.max(...lengths), 0.84 / lengths.length);
      return { side: step2 * 0.97, spots: rows(lengths, step2, step2) };
    }
    case "ring": {
      const levels = Math.ceil(count / 12);
      const lengths = evenly(count, levels);
      const radius = Math.min(0.72, 0.44 * aspect);
      const side = Math.min(0.3, 2 * Math.PI * radius / Math.max(...lengths) / 1.35, 0.55 / levels);
      const spots = lengths.flatMap(
        (length, level) => Array.from({ length }, (_, at3) => {
          const angle = (at3 + level % 2 / 2) / length * 2 * Math.PI;
          return {
            x: radius * Math.sin(angle),
            y: (level - (levels - 1) / 2) * side * 1.12,
            z: radius * Math.cos(angle),
            tiltYDegrees: angle * 180 / Math.PI
          };
        })
      );
      return { side, spots, radius };
    }
    case "arch": {
      const courses = count > 14 ? 2 : 1;
      const lengths = courses === 1 ? [count] : [Math.ceil(count * 0.56), count - Math.ceil(count * 0.56)];
      const rx = Math.min(0.38 * aspect, 0.7);
      const step2 = Math.min(0.25, (rx + RISE) / 2 * (Math.PI / (lengths[0] - 1)));
      const side = step2 * 0.88;
      const spots = lengths.flatMap(
        (length, course) => Array.from({ length }, (_, at3) => {
          const angle = Math.PI * (1 - at3 / Math.max(1, length - 1));
          const inwards = course * side * 1.15;
          return {
            x: (rx - inwards) * Math.cos(angle),
            y: 0.33 - (RISE - inwards) * Math.sin(angle),
            z: 0,
            tiltYDegrees: -14 * Math.cos(angle)
          };
        })
      );
      return { side, spots };
    }
  }
}
function evenly(count, rowCount) {
  return Array.from({ length: rowCount }, (_, row) => Math.floor((count + row) / rowCount));
}
function rows(lengths, stepX, stepY) {
  return lengths.flatMap(
    (length, row) => Array.from({ length }, (_, at3) => ({
      x: (at3 - (length - 1) / 2) * stepX,
      y: (row - (lengths.length - 1) / 2) * stepY,
      z: 0,
      tiltYDegrees: 0
    }))
  );
}
function key(ms, value, easing) {
  return { at: { tied: "start", ms: Math.round(ms) }, value, ...easing && { easing } };
}
function stretched(share, value) {
  return { at: { tied: "stretch", share }, value };
}

// src/core/builds/turnover.ts
var USUAL_TURNOVER = {
  axis: "upright",
  beginMs: 2e3,
  lengthMs: 1800,
  stepsBack: 0.7
};
var LOOKED_AT_MS2 = 2500;
function turnoverNeedsMs({ beginMs, lengthMs }) {
  return beginMs + lengthMs + LOOKED_AT_MS2;
}
function turnover(layer, plan) {
  const { beginMs, lengthMs, stepsBack } = plan;
  const key2 = (share, value) => ({
    at: { tied: "start", ms: Math.round(beginMs + share * lengthMs) },
    value
  });
  const turned2 = { keys: [key2(0, 0), key2(1, 180)] };
  const z = { keys: [key2(0, 0), key2(0.5, -stepsBack), key2(1, 0)] };
  const { tiltXDegrees: _x, tiltYDegrees: _y, ...channels2 } = layer.channels ?? {};
  return {
    ...layer,
    back: { assetId: plan.back },
    channels: {
      ...channels2,
      ...plan.axis === "upright" ? { tiltYDegrees: turned2 } : { tiltXDegrees: turned2 },
      ...stepsBack > 0 && { z }
    }
  };
}

// src/core/mounts/design.ts
function stageOf({ widthPx, heightPx }, look2) {
  const short = Math.min(widthPx, heightPx);
  return {
    ...look2,
    aspect: widthPx / heightPx,
    isUpright: widthPx < 0.9 * heightPx,
    w: (shorts) => shorts * short / widthPx,
    h: (shorts) => shorts * short / heightPx
  };
}
var edges = (left, top, right2, bottom2) => ({
  x: (left + right2) / 2,
  y: (top + bottom2) / 2,
  width: right2 - left,
  height: bottom2 - top
});
var keys = (...given) => ({
  keys: given.map(([ms, value, easing]) => ({ at: { tied: "start", ms }, value, ...easing && { easing } }))
});
var drifting = (from, to) => ({
  keys: [
    { at: { tied: "stretch", share: 0 }, value: from, easing: "linear" },
    { at: { tied: "stretch", share: 1 }, value: to }
  ]
});
var appearing = (ms, overMs = 700) => keys([ms, 0], [ms + overMs, 1]);
var arriving = (ms, from, to, overMs = 1100) => keys([ms, from, "arrive"], [ms + overMs, to]);
function picture(id, window, box2, { channels: channels2, move = { kind: "automatic" }, ...parts } = {}) {
  const all = { ...box2, ...channels2 };
  return {
    kind: "picture",
    id: layerId(id),
    assetId: windowId(window),
    move,
    ...Object.keys(all).length > 0 && { channels: all },
    ...parts
  };
}
var solid = (id, colour, box2 = null, channels2 = {}) => ({
  kind: "solid",
  id: layerId(id),
  colour,
  channels: { ...box2, ...channels2 }
});
var form = (id, shape3, colour, box2, { channels: channels2, ...parts } = {}) => ({
  kind: "shape",
  id: layerId(id),
  shape: shape3,
  fill: { kind: "colour", colour },
  channels: { ...box2, ...channels2 },
  ...parts
});
function veil(id, colour, angle, opacity, box2 = null, from = 0) {
  const gradient = {
    kind: "linear",
    angleDegrees: angle,
    stops: [
      { at: from, colour, opacity: 0 },
      { at: from + (1 - from) * 0.55, colour, opacity: opacity * 0.62 },
      { at: 1, colour, opacity }
    ]
  };
  return { kind: "gradient", id: layerId(id), gradient, ...box2 && { channels: { ...box2 } } };
}
var WORDS_MARGIN = 0.075;
function words(stage, id, draft) {
  const { letters } = stage;
  const [side, at3] = draft.across;
  const [level, height] = draft.down;
  const x = side === "left" ? 0.5 + at3 - stage.w(WORDS_MARGIN) : side === "right" ? at3 - 0.5 + stage.w(WORDS_MARGIN) : at3;
  const y = level === "top" ? 0.5 + height - stage.h(WORDS_MARGIN) : level === "bottom" ? height - 0.5 + stage.h(WORDS_MARGIN) : height;
  const vertical = level === "middle" ? "" : level;
  const horizontal = side === "centre" ? "" : side;
  const place = [vertical, horizontal].filter(Boolean).join("-") || "centre";
  return {
    kind: "words",
    id: layerId(id),
    ...draft.name && { name: draft.name },
    title: draft.title ?? "",
    subtitle: draft.subtitle ?? "",
    place,
    style: {
      font: letters.title,
      subtitleFont: letters.text,
      weight: letters.weight,
      letterSpacing: letters.spacing,
      shadow: "none",
      align: side,
      measure: Math.max(0.1, Math.min(1, draft.width)),
      room: draft.room,
      size: draft.size,
      colour: draft.colour,
      accent: draft.accent ?? draft.colour,
      ...draft.style
    },
    ...draft.come !== null && { come: draft.come ?? coming(900) },
    channels: { x, y, ...draft.channels }
  };
}
var coming = (atMs, way = "rise", by = "line", lengthMs = 900) => ({
  entrance: { way, by, atMs, lengthMs },
  exit: null
});
var slide = ({
  lengthMs,
  transition = { kind: "dissolve", lengthMs: 1e3 },
  backing = { kind: "automatic" },
  layers
}) => ({ id: slideId("s"), lengthMs, transition, backing, layers, sounds: [] });
var plain = (colour) => ({ kind: "colour", colour });
var field = (id, part, name, from, on = 0) => ({
  slide: on,
  layerId: layerId(id),
  part,
  name,
  from
});
var windows = (...names) => names.map((name) => ({ name, takes: "picture" }));
var numbered = (count, name = "Picture") => Array.from({ length: count }, (_, index) => ({
  name: count === 1 ? name : `${name} ${index + 1}`,
  takes: "picture"
}));
var shipped = ({ fits, goes = "before", ...draft }) => ({
  ...draft,
  author: "",
  goes,
  fits: (frame, look2) => fits(stageOf(frame, look2)).map((fit) => ({
    name: fit.name ?? nameOfFit(fit.windows?.length ?? 0),
    suits: fit.suits ?? "any",
    windows: fit.windows ?? [],
    slides: fit.slides.map((one, index) => ({ ...one, id: slideId(`s${index + 1}`) })),
    words: fit.words ?? [],
    ...fit.loupeOver && { loupeOver: layerId(fit.loupeOver) }
  }))
});
var nameOfFit = (count) => count === 0 ? "without pictures" : count === 1 ? "one picture" : `${count} pictures`;

// src/core/mounts/shipped/builds.ts
var faceToFace = shipped({
  id: "face-to-face",
  name: "Face to face",
  shelf: "Builds",
  description: "A loupe that travels over a picture of many people and enlarges each face it finds.",
  posterMs: 3200,
  fits: () => [
    {
      windows: windows("Picture of many"),
      loupeOver: "picture",
      slides: [slide({ lengthMs: 8e3, layers: [picture("picture", 1, null)] })]
    }
  ]
});
var otherSide = shipped({
  id: "other-side",
  name: "Other side",
  shelf: "Builds",
  description: "A picture that turns over and shows another on its back.",
  posterMs: 2700,
  fits: (stage) => [
    {
      windows: [
        { name: "Front", takes: "picture" },
        { name: "Back", takes: "picture", stills: true }
      ],
      slides: [
        slide({
          lengthMs: turnoverNeedsMs({ ...USUAL_TURNOVER, back: windowId(2) }),
          backing: plain(stage.palette.ink),
          layers: [
            turnover(picture("picture", 1, edges(stage.w(0.08), stage.h(0.08), 1 - stage.w(0.08), 1 - stage.h(0.08))), {
              ...USUAL_TURNOVER,
              axis: stage.isUpright ? "level" : "upright",
              back: windowId(2)
            })
          ]
        })
      ]
    }
  ]
});
var lanternsOf = (id, name, shape3, description) => shipped({
  id,
  name,
  shelf: "Builds",
  description,
  posterMs: 8600,
  fits: (stage) => [16, 20, 25, 30, 36].map((count) => ({
    windows: numbered(count, "Lantern").map((window) => ({ ...window, stills: true })),
    slides: [
      slide({
        lengthMs: lanternsNeedMs({ ...USUAL_LANTERNS, pictures: [] }),
        backing: {
          kind: "gradient",
          gradient: {
            kind: "linear",
            angleDegrees: 90,
            stops: [
              { at: 0, colour: stage.palette.ink },
              { at: 1, colour: "#0a090b" }
            ]
          }
        },
        layers: [
          lanterns(
            {
              ...USUAL_LANTERNS,
              shape: shape3,
              colour: stage.palette.accent,
              pictures: Array.from({ length: count }, (_, index) => windowId(index + 1))
            },
            { widthPx: 1e3 * stage.aspect, heightPx: 1e3 },
            layerId("lanterns")
          )
        ]
      })
    ]
  }))
});
var lanternWall = lanternsOf(
  "lantern-wall",
  "Lantern wall",
  "wall",
  "Sixteen to thirty-six pictures on lanterns that rise and gather into a wall."
);
var lanternRing = lanternsOf(
  "lantern-ring",
  "Lantern ring",
  "ring",
  "Sixteen to thirty-six pictures on lanterns that go round in a ring."
);
var trail = shipped({
  id: "trail",
  name: "Trail",
  shelf: "Builds",
  description: "A dotted way over a map-like ground, with three to six places that come up along it.",
  posterMs: 7e3,
  fits: (stage) => [3, 4, 5, 6].map((count) => {
    const { palette } = stage;
    const tall = stage.isUpright;
    const at3 = (share) => {
      const along2 = 0.13 + 0.74 * share;
      const over = 0.56 + 0.17 * Math.sin(share * Math.PI * 2.1 + 0.6);
      return tall ? { x: over, y: along2 } : { x: along2, y: over };
    };
    const stations = Array.from({ length: count }, (_, index) => at3(index / (count - 1)));
    const gapMs = 1300;
    const dots = Array.from({ length: (count - 1) * 7 }, (_, index) => ({
      share: (index + 1) / ((count - 1) * 7 + 1),
      index
    }));
    const size = tall ? Math.min(0.34, 1.2 / count) : Math.min(0.36, 0.86 * stage.aspect / count);
    return {
      windows: numbered(count, "Place"),
      slides: [
        slide({
          lengthMs: 3200 + count * gapMs,
          backing: plain(palette.paper),
          layers: [
            form(
              "land",
              { kind: "free", path: "M0 62C14 50 22 66 36 58C52 48 58 66 72 60C84 55 92 64 100 56V100H0Z" },
              palette.soft,
              edges(0, 0, 1, 1),
              { channels: { opacity: 0.55 } }
            ),
            form(
              "lake",
              {
                kind: "free",
                path: "M20 50C10 30 30 12 50 20C74 8 94 30 82 54C88 78 60 92 44 80C26 86 12 70 20 50Z"
              },
              palette.soft,
              { x: tall ? 0.2 : 0.22, y: tall ? 0.3 : 0.2, width: stage.w(0.5), height: stage.h(0.4) },
              { channels: { opacity: 0.4 } }
            ),
            ...dots.map(
              ({ share, index }) => form(
                `dot-${index + 1}`,
                { kind: "ellipse" },
                palette.accent,
                { ...at3(share), width: stage.w(0.014), height: stage.h(0.014) },
                {
                  channels: { opacity: appearing(Math.round(700 + share * (count - 1) * gapMs), 150) }
                }
              )
            ),
            ...stations.flatMap((spot, index) => {
              const atMs = 500 + index * gapMs;
              const up = index % 2 === 0 ? -1 : 1;
              const reach2 = size / 2 + 0.05;
              const centre2 = tall ? {
                x: Math.min(
                  1 - stage.w(size / 2 + 0.03),
                  Math.max(stage.w(size / 2 + 0.03), spot.x + up * stage.w(reach2 + 0.02))
                ),
                y: spot.y
              } : {
                x: Math.min(1 - stage.w(size / 2 + 0.03), Math.max(stage.w(size / 2 + 0.03), spot.x)),
                y: Math.min(
                  1 - stage.h(size / 2 + 0.03),
                  Math.max(stage.h(size / 2 + 0.03), spot.y + up * stage.h(reach2))
                )
              };
              return [
                form(
                  `pin-${index + 1}`,
                  { kind: "ellipse" },
                  palette.ink,
                  { ...spot, width: stage.w(0.034), height: stage.h(0.034) },
                  {
                    channels: { opacity: appearing(atMs, 200) }
                  }
                ),
                picture(
                  `place-${index + 1}`,
                  index + 1,
                  { ...centre2, width: stage.w(size), height: stage.h(size) },
                  {
                    edge: {
                      shape: { kind: "rounded", radius: 0.06 },
                      outline: { width: 0.03, colour: "#ffffff", where: "outside" },
                      shadow: { x: 2e-3, y: 8e-3, softness: 0.012, colour: "#000000", opacity: 0.35 }
                    },
                    channels: {
                      width: keys([atMs, 1e-3, "swing"], [atMs + 900, stage.w(size)]),
                      height: keys([atMs, 1e-3, "swing"], [atMs + 900, stage.h(size)])
                    }
                  }
                )
              ];
            })
          ]
        })
      ]
    };
  })
});
var beforeAfter = shipped({
  id: "before-and-after",
  name: "Before and after",
  shelf: "Builds",
  description: "A line travels over a picture and leaves another of the same place behind it.",
  posterMs: 3300,
  fits: (stage) => {
    const { palette } = stage;
    const go = (from, to) => keys([1600, from, "settle"], [5200, to]);
    const plate = { box: { colour: palette.ink, opacity: 0.85, padding: 0.4, radius: 0.1 } };
    return [
      {
        windows: windows("Before", "After"),
        slides: [
          slide({
            lengthMs: 8e3,
            backing: plain(palette.ink),
            layers: [
              picture("before", 1, edges(0, 0, 1, 1), { move: { kind: "still" } }),
              picture("after", 2, edges(0, 0, 1, 1), { move: { kind: "still" }, channels: { cropRight: go(1, 0) } }),
              solid("line", palette.paper, { x: 0, y: 0.5, width: stage.w(8e-3), height: 1 }, { x: go(-0.01, 1.01) }),
              words(stage, "then", {
                title: "Before",
                across: ["right", 1 - stage.w(0.1)],
                down: ["bottom", 1 - stage.h(0.1)],
                width: 0.4,
                room: 0.14,
                size: 0.05,
                colour: palette.paper,
                style: plate,
                come: { entrance: { way: "fade", by: "all", atMs: 500, lengthMs: 500 }, exit: null },
                channels: { opacity: keys([3600, 1], [4300, 0]) }
              }),
              words(stage, "now", {
                title: "After",
                across: ["left", stage.w(0.1)],
                down: ["bottom", 1 - stage.h(0.1)],
                width: 0.4,
                room: 0.14,
                size: 0.05,
                colour: palette.paper,
                style: plate,
                come: coming(3e3, "fade", "all", 600)
              })
            ]
          })
        ],
        words: [field("then", "title", "What was", "own"), field("now", "title", "What is", "own")]
      }
    ];
  }
});
var logoIn = shipped({
  id: "logo-in",
  name: "Logo in",
  shelf: "Logo",
  description: "Your logo to begin with: it comes up out of a line and stands alone for a moment.",
  posterMs: 2400,
  goes: "before",
  fits: (stage) => {
    const { palette } = stage;
    const size = 0.46;
    const box2 = { x: 0.5, y: 0.5, width: stage.w(size * 1.5), height: stage.h(size) };
    return [
      {
        windows: [{ name: "Logo", takes: "logo" }],
        slides: [
          slide({
            lengthMs: 3600,
            transition: { kind: "dip", lengthMs: 800, colour: palette.paper },
            backing: plain(palette.paper),
            layers: [
              {
                kind: "drawing",
                id: layerId("logo"),
                assetId: windowId(1),
                channels: { ...box2, y: arriving(500, 0.5 + stage.h(0.3), 0.5, 1200), opacity: appearing(500, 700) }
              },
              solid("ground", palette.paper, edges(0, 0.5 + stage.h(size / 2 + 0.012), 1, 1.02)),
              form(
                "line",
                { kind: "rectangle" },
                palette.accent,
                { x: 0.5, y: 0.5 + stage.h(size / 2 + 0.015), width: stage.w(0.62), height: stage.h(6e-3) },
                {
                  channels: {
                    width: keys([100, 1e-3, "settle"], [900, stage.w(0.62)]),
                    opacity: keys([2100, 1], [2700, 0])
                  }
                }
              )
            ]
          })
        ]
      }
    ];
  }
});
var logoOut = shipped({
  id: "logo-out",
  name: "Logo out",
  shelf: "Logo",
  description: "Your logo to end with: it comes clear out of a blur, with how to reach you below it.",
  posterMs: 3400,
  goes: "after",
  fits: (stage) => {
    const { palette } = stage;
    const size = 0.38;
    return [
      {
        windows: [{ name: "Logo", takes: "logo" }],
        slides: [
          slide({
            lengthMs: 5e3,
            transition: { kind: "dissolve", lengthMs: 1200 },
            backing: plain(palette.ink),
            layers: [
              form(
                "plate",
                { kind: "ellipse" },
                palette.paper,
                { x: 0.5, y: 0.4, width: stage.w(0.62), height: stage.h(0.62) },
                {
                  channels: {
                    width: keys([200, 1e-3, "swing"], [1300, stage.w(0.62)]),
                    height: keys([200, 1e-3, "swing"], [1300, stage.h(0.62)])
                  }
                }
              ),
              {
                kind: "drawing",
                id: layerId("logo"),
                assetId: windowId(1),
                channels: {
                  x: 0.5,
                  y: 0.4,
                  width: stage.w(size),
                  height: stage.h(size),
                  blur: keys([700, 0.04, "arrive"], [1900, 0]),
                  opacity: appearing(700, 800)
                }
              },
              words(stage, "words", {
                across: ["centre", 0.5],
                down: ["middle", 0.4 + stage.h(0.31) + (0.6 - stage.h(0.31)) / 2 - stage.h(0.02)],
                width: 0.84,
                room: 0.6 - stage.h(0.31) - stage.h(0.12),
                size: 0.07,
                colour: palette.paper,
                accent: palette.soft,
                come: coming(1600, "fade", "line", 900)
              })
            ]
          })
        ],
        words: [field("words", "title", "Studio", "studio"), field("words", "subtitle", "How to reach you", "contact")]
      }
    ];
  }
});
var BUILDS = [faceToFace, otherSide, lanternWall, lanternRing, trail, beforeAfter];
var LOGOS = [logoIn, logoOut];

// src/core/mounts/shipped/cards.ts
var CHAPTER = [field("words", "title", "Chapter", "chapter"), field("words", "subtitle", "Below it", "dates")];
var passingField = shipped({
  id: "passing-field",
  name: "Passing field",
  shelf: "Chapters",
  description: "No picture: the chapter\u2019s name on a field of colour that comes from one side and goes to the other.",
  posterMs: 1900,
  fits: (stage) => {
    const { palette } = stage;
    return [
      {
        slides: [
          slide({
            lengthMs: 3600,
            transition: { kind: "push", lengthMs: 900, direction: "left" },
            backing: plain(palette.accent),
            layers: [
              form("bar", { kind: "rectangle" }, palette.ink, edges(0, 1 - stage.h(0.09), 1, 1), {
                channels: { cropLeft: keys([300, 1, "settle"], [1700, 0]) }
              }),
              words(stage, "words", {
                across: ["left", stage.w(0.12)],
                down: ["middle", 0.47],
                width: 1 - stage.w(0.24),
                room: 0.62,
                size: 0.16,
                colour: palette.paper,
                accent: palette.paper,
                come: coming(600, "wipe", "line", 900)
              })
            ]
          })
        ],
        words: CHAPTER
      }
    ];
  }
});
var sideBand = shipped({
  id: "side-band",
  name: "Side band",
  shelf: "Chapters",
  description: "The chapter\u2019s first picture, and its name on a band at the side.",
  posterMs: 3e3,
  fits: (stage) => {
    const { palette } = stage;
    const tall = stage.isUpright;
    const band = tall ? edges(0, 0.74, 1, 0.96) : edges(0, 0.12, Math.min(0.42, stage.w(0.72)), 0.88);
    return [
      {
        windows: windows("Picture"),
        slides: [
          slide({
            lengthMs: 5500,
            layers: [
              picture("picture", 1, null),
              solid("band", palette.ink, band, { x: arriving(400, -band.width, band.x, 1100), opacity: 0.9 }),
              form(
                "edge",
                { kind: "rectangle" },
                palette.accent,
                tall ? edges(0, 0.74 - stage.h(0.012), 1, 0.74) : edges(band.width, 0.12, band.width + stage.w(0.012), 0.88),
                {
                  channels: tall ? { cropRight: keys([900, 1, "arrive"], [1900, 0]) } : { cropBottom: keys([1100, 1, "arrive"], [2e3, 0]) }
                }
              ),
              words(stage, "words", {
                across: ["left", stage.w(0.08)],
                down: ["middle", band.y],
                width: band.width - stage.w(0.16),
                room: band.height - stage.h(0.1),
                size: 0.088,
                colour: palette.paper,
                accent: palette.soft,
                come: coming(1300, "rise", "line", 900)
              })
            ]
          })
        ],
        words: CHAPTER
      }
    ];
  }
});
var openBook = shipped({
  id: "tabbed-page",
  name: "Tabbed page",
  shelf: "Chapters",
  description: "A page turns to the chapter\u2019s name, with a small print in its corner.",
  posterMs: 2600,
  fits: (stage) => {
    const { palette } = stage;
    const tall = stage.aspect < 1.4;
    const print = tall ? edges(0.5 - stage.w(0.27), 0.1, 0.5 + stage.w(0.27), 0.1 + stage.h(0.54)) : edges(1 - stage.w(0.16) - stage.w(0.6), 0.5 - stage.h(0.3), 1 - stage.w(0.16), 0.5 + stage.h(0.3));
    return [
      {
        windows: windows("Print"),
        slides: [
          slide({
            lengthMs: 5e3,
            transition: { kind: "page-turn", lengthMs: 1300, direction: "left" },
            backing: plain(palette.paper),
            layers: [
              solid("tab", palette.accent, edges(0, 0, stage.w(0.05), 1)),
              picture("print", 1, print, {
                channels: { turnDegrees: 2.5 },
                edge: {
                  outline: { width: 0.03, colour: "#ffffff", where: "outside" },
                  shadow: { x: 4e-3, y: 0.01, softness: 0.014, colour: "#000000", opacity: 0.32 }
                }
              }),
              words(stage, "words", {
                across: ["left", stage.w(0.15)],
                down: tall ? ["top", 0.1 + stage.h(0.64)] : ["middle", 0.5],
                width: tall ? 1 - stage.w(0.28) : print.x - print.width / 2 - stage.w(0.23),
                room: tall ? 0.88 - stage.h(0.66) : 0.7,
                size: 0.1,
                colour: palette.ink,
                accent: palette.accent,
                come: coming(1100, "type", "letter", 1300)
              })
            ]
          })
        ],
        words: CHAPTER
      }
    ];
  }
});
var whereAndWhen = shipped({
  id: "where-and-when",
  name: "Where and when",
  shelf: "Date and place",
  description: "The picture, and where and when it was taken on two small plates in its corner.",
  posterMs: 3e3,
  fits: (stage) => {
    const { palette } = stage;
    const plate = (colour) => ({ box: { colour, opacity: 1, padding: 0.42, radius: 0.12 } });
    return [
      {
        windows: windows("Picture"),
        slides: [
          slide({
            lengthMs: 5500,
            layers: [
              picture("picture", 1, null),
              words(stage, "place", {
                title: "",
                across: ["left", stage.w(0.11)],
                down: ["bottom", 1 - stage.h(0.2)],
                width: 1 - stage.w(0.22),
                room: 0.22,
                size: 0.066,
                colour: palette.paper,
                style: plate(palette.ink),
                come: coming(1e3, "wipe", "all", 700)
              }),
              words(stage, "date", {
                title: "",
                across: ["left", stage.w(0.11)],
                down: ["bottom", 1 - stage.h(0.1)],
                width: 1 - stage.w(0.22),
                room: 0.12,
                size: 0.044,
                colour: palette.paper,
                style: plate(palette.accent),
                come: coming(1500, "wipe", "all", 700)
              })
            ]
          })
        ],
        words: [field("place", "title", "Place", "words"), field("date", "title", "Date", "dates")]
      }
    ];
  }
});
var label = shipped({
  id: "label",
  name: "Label",
  shelf: "Date and place",
  description: "A label that swings in on its string over the blurred picture, with place and date on it.",
  posterMs: 3e3,
  fits: (stage) => {
    const { palette } = stage;
    const [width, height] = stage.isUpright ? [stage.w(0.84), stage.h(0.5)] : [Math.min(0.84, stage.w(1)), stage.h(0.5)];
    return [
      {
        windows: windows("Picture"),
        slides: [
          slide({
            lengthMs: 5e3,
            layers: [
              picture("picture", 1, null, { channels: { blur: keys([200, 0], [1300, 0.022]) } }),
              solid("dim", palette.ink, null, { opacity: keys([200, 0], [1300, 0.35]) }),
              form(
                "shade",
                { kind: "rectangle", radius: 0.09 },
                "#000000",
                { x: 0.5, y: 0.5 + stage.h(0.02), width, height },
                {
                  channels: { blur: 0.02, opacity: keys([300, 0], [1500, 0.5]) }
                }
              ),
              {
                kind: "group",
                id: "tag",
                channels: {
                  y: keys([200, -0.5, "swing"], [1900, 0.5]),
                  turnDegrees: keys([200, 9, "swing"], [2300, -1.5])
                },
                layers: [
                  form("card", { kind: "free", path: "M10 0H96L100 8V92L96 100H10L0 78V22Z" }, palette.paper, {
                    x: 0.5,
                    y: 0.5,
                    width,
                    height
                  }),
                  form("hole", { kind: "ellipse" }, palette.soft, {
                    x: 0.5 - width / 2 + stage.w(0.075),
                    y: 0.5,
                    width: stage.w(0.05),
                    height: stage.h(0.05)
                  }),
                  words(stage, "words", {
                    across: ["centre", 0.5 + stage.w(0.035)],
                    down: ["middle", 0.5],
                    width: width - stage.w(0.28),
                    room: height - stage.h(0.12),
                    size: 0.1,
                    colour: palette.ink,
                    accent: palette.accent,
                    come: coming(0, "none", "all", 0)
                  })
                ]
              }
            ]
          })
        ],
        words: [field("words", "title", "Place", "words"), field("words", "subtitle", "Date", "dates")]
      }
    ];
  }
});
var captioned = shipped({
  id: "captioned-print",
  name: "Captioned print",
  shelf: "Captions",
  description: "The picture as a print on paper, with a line about it below.",
  posterMs: 3200,
  fits: (stage) => {
    const { palette } = stage;
    const fit = (name, suits, ratio) => {
      const roomW = 1 - stage.w(0.2);
      const roomH = 1 - stage.h(0.36);
      const width = Math.min(roomW, roomH * ratio / stage.aspect);
      const height = width * stage.aspect / ratio;
      const y = stage.h(0.1) + (1 - stage.h(0.34)) / 2 - stage.h(0.01);
      return {
        name,
        suits,
        windows: windows("Print"),
        slides: [
          slide({
            lengthMs: 6e3,
            backing: plain(palette.paper),
            layers: [
              picture(
                "print",
                1,
                { x: 0.5, y, width, height },
                {
                  edge: { shadow: { x: 0, y: 8e-3, softness: 0.018, colour: "#000000", opacity: 0.3 } }
                }
              ),
              words(stage, "words", {
                title: "",
                across: ["centre", 0.5],
                down: ["middle", (y + height / 2 + 1) / 2],
                width: 0.84,
                room: Math.max(0.05, 1 - y - height / 2 - stage.h(0.08)),
                size: 0.062,
                colour: palette.ink,
                accent: palette.accent,
                come: coming(900, "fade", "all", 800)
              })
            ]
          })
        ],
        words: [field("words", "title", "Caption", "words")]
      };
    };
    return [
      fit("a wide picture", "wide", 1.5),
      fit("an upright picture", "upright", 0.75),
      fit("one picture", "any", 1)
    ];
  }
});
var marginNote = shipped({
  id: "margin-note",
  name: "Margin note",
  shelf: "Captions",
  description: "The picture on one side, a heading and a few lines about it on the other.",
  posterMs: 3600,
  fits: (stage) => {
    const { palette } = stage;
    const tall = stage.aspect < 1.2;
    const split = tall ? 0.6 : 0.56;
    return [
      {
        windows: windows("Picture"),
        slides: [
          slide({
            lengthMs: 7500,
            backing: plain(palette.paper),
            layers: [
              picture("picture", 1, tall ? edges(0, 0, 1, split) : edges(0, 0, split, 1)),
              form(
                "line",
                { kind: "rectangle" },
                palette.accent,
                tall ? edges(stage.w(0.09), split + stage.h(0.075), stage.w(0.25), split + stage.h(0.083)) : edges(split + stage.w(0.11), 0.25, split + stage.w(0.27), 0.25 + stage.h(8e-3)),
                {
                  channels: { cropRight: keys([500, 1, "arrive"], [1400, 0]) }
                }
              ),
              words(stage, "words", {
                across: ["left", tall ? stage.w(0.09) : split + stage.w(0.11)],
                down: ["top", tall ? split + stage.h(0.115) : 0.25 + stage.h(0.05)],
                width: tall ? 1 - stage.w(0.18) : 1 - split - stage.w(0.2),
                room: tall ? 1 - split - stage.h(0.2) : 0.66,
                size: 0.088,
                colour: palette.ink,
                style: { lineSpacing: 1.12 },
                come: coming(800, "rise", "line", 1300)
              })
            ]
          })
        ],
        words: [field("words", "title", "Heading", "words"), field("words", "subtitle", "A few lines", "words")]
      }
    ];
  }
});
var lowerLine = shipped({
  id: "lower-line",
  name: "Lower line",
  shelf: "Captions",
  description: "The picture, and one line about it that writes itself along the lower edge.",
  posterMs: 3400,
  fits: (stage) => [
    {
      windows: windows("Picture"),
      slides: [
        slide({
          lengthMs: 5500,
          layers: [
            picture("picture", 1, null),
            veil("shade", "#000000", 90, 0.82, edges(0, 0.62, 1, 1)),
            words(stage, "words", {
              across: ["centre", 0.5],
              down: ["bottom", 1 - stage.h(0.075)],
              width: 0.86,
              room: 0.24,
              size: 0.058,
              colour: "#ffffff",
              accent: stage.palette.soft,
              come: coming(900, "type", "letter", 1400),
              channels: { opacity: appearing(800, 200) }
            })
          ]
        })
      ],
      words: [field("words", "title", "Caption", "words")]
    }
  ]
});
var CARDS = [
  passingField,
  sideBand,
  openBook,
  whereAndWhen,
  label,
  captioned,
  marginNote,
  lowerLine
];

// src/core/mounts/shipped/closers.ts
var laidDown = shipped({
  id: "laid-down",
  name: "Laid down",
  shelf: "Closers",
  description: "The last picture steps back and becomes a print on a table, with thanks below it.",
  posterMs: 5600,
  goes: "after",
  fits: (stage) => {
    const { palette } = stage;
    const size = stage.isUpright ? 0.62 : 0.5;
    const [width, height] = [stage.w(size * 1.3), stage.h(size)];
    return [
      {
        windows: windows("Print"),
        slides: [
          slide({
            lengthMs: 8e3,
            backing: plain(palette.ink),
            layers: [
              picture(
                "print",
                1,
                { x: 0.5, y: 0.5, width, height },
                {
                  channels: {
                    width: keys([700, 1.06, "settle"], [3400, width]),
                    height: keys([700, 1.06, "settle"], [3400, height]),
                    y: keys([700, 0.5, "settle"], [3400, 0.4]),
                    turnDegrees: keys([700, 0, "settle"], [3400, -3])
                  },
                  edge: {
                    outline: { width: keys([700, 0], [2600, 0.035]), colour: "#ffffff", where: "outside" },
                    shadow: { x: 0, y: 0.012, softness: 0.02, colour: "#000000", opacity: 0.55 }
                  }
                }
              ),
              words(stage, "words", {
                title: "Thank you for watching",
                across: ["centre", 0.5],
                down: ["middle", 0.4 + height / 2 + (1 - 0.4 - height / 2) / 2],
                width: 0.84,
                room: 1 - 0.4 - height / 2 - stage.h(0.12),
                size: 0.085,
                colour: palette.paper,
                accent: palette.soft,
                come: coming(3200, "fade", "word", 1300)
              })
            ]
          })
        ],
        words: [field("words", "title", "Thanks", "own"), field("words", "subtitle", "From whom", "studio")]
      }
    ];
  }
});
var untilNext = shipped({
  id: "until-next",
  name: "Until next time",
  shelf: "Closers",
  description: "No picture: a few words to end with, and who they are from.",
  posterMs: 3200,
  goes: "after",
  fits: (stage) => {
    const { palette } = stage;
    return [
      {
        slides: [
          slide({
            lengthMs: 5500,
            transition: { kind: "dissolve", lengthMs: 1500 },
            backing: plain(palette.paper),
            layers: [
              form(
                "dot",
                { kind: "ellipse" },
                palette.accent,
                { x: 0.5, y: 0.5 - stage.h(0.25), width: stage.w(0.03), height: stage.h(0.03) },
                {
                  channels: {
                    opacity: appearing(300, 500),
                    y: keys([300, 0.5 - stage.h(0.4), "bounce"], [1300, 0.5 - stage.h(0.25)])
                  }
                }
              ),
              words(stage, "words", {
                title: "Until next time",
                across: ["centre", 0.5],
                down: ["middle", 0.52],
                width: 0.82,
                room: stage.h(0.42),
                size: 0.11,
                colour: palette.ink,
                accent: palette.accent,
                come: coming(900, "rise", "line", 1100)
              })
            ]
          })
        ],
        words: [field("words", "title", "Words to end with", "own"), field("words", "subtitle", "From whom", "studio")]
      }
    ];
  }
});
var lampOut = shipped({
  id: "lamp-out",
  name: "Lamp out",
  shelf: "Closers",
  description: "The light draws in around the last picture and goes out; the words stay a while.",
  posterMs: 3500,
  goes: "after",
  fits: (stage) => {
    const size = 2.1;
    return [
      {
        windows: windows("Picture"),
        slides: [
          slide({
            lengthMs: 8500,
            backing: plain("#050505"),
            layers: [
              picture("picture", 1, null),
              {
                kind: "gradient",
                id: "cone",
                gradient: {
                  kind: "radial",
                  stops: [
                    { at: 0, colour: "#ffffff", opacity: 1 },
                    { at: 0.4, colour: "#ffffff", opacity: 0.92 },
                    { at: 0.68, colour: "#ffffff", opacity: 0 },
                    { at: 1, colour: "#ffffff", opacity: 0 }
                  ]
                },
                channels: {
                  width: keys([0, stage.w(size) * 2.2], [1200, stage.w(size) * 2.2, "settle"], [5200, stage.w(0.02)]),
                  height: keys([0, stage.h(size) * 2.2], [1200, stage.h(size) * 2.2, "settle"], [5200, stage.h(0.02)]),
                  opacity: keys([4600, 1], [5300, 0])
                },
                mask: { by: "transparency", cuts: "below" }
              },
              words(stage, "words", {
                title: "The end",
                across: ["centre", 0.5],
                down: ["middle", 0.5],
                width: 0.82,
                room: 0.5,
                size: 0.13,
                colour: "#ffffff",
                accent: stage.palette.soft,
                come: coming(4900, "fade", "letter", 1300)
              })
            ]
          })
        ],
        words: [
          field("words", "title", "Words to end with", "own"),
          field("words", "subtitle", "Below them", "studio")
        ]
      }
    ];
  }
});
var CREDITS = [
  field("credits", "title", "Title of the credits", "own"),
  field("credits", "subtitle", "Credits, two columns by a tab", "credits")
];
var rollCall = shipped({
  id: "roll-call",
  name: "Roll call",
  shelf: "Credits",
  description: "Rolling credits in two columns on a plain ground.",
  posterMs: 7e3,
  goes: "after",
  fits: (stage) => [
    {
      slides: [
        slide({
          lengthMs: 14e3,
          transition: { kind: "dissolve", lengthMs: 1500 },
          backing: plain(stage.palette.ink),
          layers: [
            {
              ...words(stage, "credits", {
                title: "With thanks",
                across: ["centre", 0.5],
                down: ["middle", 0.5],
                width: 0.86,
                room: 1,
                size: 0.1,
                colour: stage.palette.paper,
                accent: stage.palette.soft,
                style: { lineSpacing: 1.3 },
                come: null
              }),
              travel: { kind: "roll", fromMs: 0, lengthMs: null }
            }
          ]
        })
      ],
      words: CREDITS
    }
  ]
});
var besideThanks = shipped({
  id: "beside-the-thanks",
  name: "Beside the thanks",
  shelf: "Credits",
  description: "Rolling credits with one picture standing beside them.",
  posterMs: 7e3,
  goes: "after",
  fits: (stage) => {
    const { palette } = stage;
    const tall = stage.aspect < 1.2;
    const box2 = tall ? edges(0, 0, 1, 0.46) : edges(0, 0, 0.46, 1);
    return [
      {
        windows: windows("Picture"),
        slides: [
          slide({
            lengthMs: 14e3,
            transition: { kind: "dissolve", lengthMs: 1500 },
            backing: plain(palette.ink),
            layers: [
              {
                ...words(stage, "credits", {
                  title: "With thanks",
                  across: ["centre", 0.5],
                  down: ["middle", 0.5],
                  width: tall ? 0.88 : 0.48,
                  room: 1,
                  size: tall ? 0.09 : 0.085,
                  colour: palette.paper,
                  accent: palette.soft,
                  style: { lineSpacing: 1.25 },
                  come: null,
                  channels: { x: tall ? 0.5 : 0.73, y: 0.5 }
                }),
                travel: { kind: "roll", fromMs: 0, lengthMs: null }
              },
              picture("picture", 1, box2),
              tall ? veil("fade", palette.ink, 90, 1, edges(0, 0.3, 1, 0.462)) : veil("fade", palette.ink, 0, 1, edges(0.3, 0, 0.462, 1))
            ]
          })
        ],
        words: CREDITS
      }
    ];
  }
});
var callCard = shipped({
  id: "call-card",
  name: "Write to us",
  shelf: "Closers",
  description: "A picture beside a card with your studio\u2019s name and how to reach it.",
  posterMs: 3800,
  goes: "after",
  fits: (stage) => {
    const { palette } = stage;
    const tall = stage.aspect < 1.2;
    const card = tall ? edges(0, 0.56, 1, 1) : edges(0.58, 0, 1, 1);
    return [
      {
        windows: windows("Picture"),
        slides: [
          slide({
            lengthMs: 7e3,
            layers: [
              picture("picture", 1, tall ? edges(0, 0, 1, 0.56) : edges(0, 0, 0.58, 1)),
              solid(
                "card",
                palette.accent,
                card,
                tall ? { y: arriving(300, 1.3, card.y, 1100) } : { x: arriving(300, 1.3, card.x, 1100) }
              ),
              words(stage, "words", {
                title: "Shall we make yours?",
                across: ["centre", card.x],
                down: ["middle", card.y],
                width: card.width - stage.w(0.14),
                room: card.height - stage.h(0.2),
                size: 0.082,
                colour: palette.paper,
                accent: palette.paper,
                style: { lineSpacing: 1.15 },
                come: coming(1200, "rise", "line", 1200)
              })
            ]
          })
        ],
        words: [
          field("words", "title", "Question or name", "own"),
          field("words", "subtitle", "How to reach you", "contact")
        ]
      }
    ];
  }
});
var CLOSERS = [laidDown, untilNext, lampOut, callCard, rollCall, besideThanks];

// src/core/mounts/shipped/collages.ts
var PRINT = (width = 0.035) => ({
  outline: { width, colour: "#ffffff", where: "outside" },
  shadow: { x: 2e-3, y: 8e-3, softness: 0.014, colour: "#000000", opacity: 0.4 }
});
function rows2(counts, within2, gapW, gapH) {
  const height = (within2.bottom - within2.top - gapH * (counts.length - 1)) / counts.length;
  return counts.flatMap((count, row) => {
    const width = (within2.right - within2.left - gapW * (count - 1)) / count;
    return Array.from({ length: count }, (_, at3) => ({
      x: within2.left + width / 2 + at3 * (width + gapW),
      y: within2.top + height / 2 + row * (height + gapH),
      width,
      height
    }));
  });
}
function rowsFor(count, aspect, wanted) {
  let best2 = [count];
  let least = Infinity;
  for (let lines2 = 1; lines2 <= count; lines2 += 1) {
    const counts = Array.from({ length: lines2 }, (_, row) => Math.floor((count + row) / lines2));
    const price = counts.reduce((sum, each) => sum + Math.abs(Math.log(aspect * lines2 / each / wanted)), 0) / lines2;
    if (price < least) [best2, least] = [counts, price];
  }
  return best2;
}
function rowsOfLargest(count, aspect, ratio) {
  const heightOf = (counts) => Math.min(1 / counts.length, aspect / Math.max(...counts) / ratio);
  return Array.from(
    { length: count },
    (_, lines2) => Array.from({ length: lines2 + 1 }, (_row, row) => Math.floor((count + row) / (lines2 + 1)))
  ).reduce((best2, one) => heightOf(one) > heightOf(best2) ? one : best2);
}
var WAYS_TO_LEAN = [
  { across: 0.8, down: 0.1 },
  { across: 0.42, down: 0.3 },
  { across: 0.12, down: 0.78 }
];
function leaning(stage, ratio) {
  const [roomW, roomH] = [0.86 * stage.aspect, 0.84];
  const sizes2 = WAYS_TO_LEAN.map(({ across, down }) => {
    const high = Math.min(roomH / (1 + down), roomW / (ratio * (1 + across)));
    return {
      height: high,
      width: high * ratio / stage.aspect,
      dx: across / 2 * (high * ratio / stage.aspect),
      dy: down / 2 * high
    };
  });
  return sizes2.reduce((best2, one) => one.height > best2.height ? one : best2);
}
var twoHands = shipped({
  id: "two-hands",
  name: "Two hands",
  shelf: "Several pictures",
  description: "Two prints, the second laid over a corner of the first.",
  posterMs: 3500,
  fits: (stage) => {
    const { palette } = stage;
    const pair = (name, suits, ratio) => {
      const { width, height, dx, dy } = leaning(stage, ratio);
      return {
        name,
        suits,
        windows: windows("Below", "On top"),
        slides: [
          slide({
            lengthMs: 6500,
            backing: plain(palette.paper),
            layers: [
              picture(
                "below",
                1,
                { x: 0.5 - dx, y: 0.5 - dy, width, height },
                {
                  edge: PRINT(),
                  channels: { turnDegrees: keys([0, -9, "arrive"], [1300, -4]), x: arriving(0, -0.5, 0.5 - dx, 1300) }
                }
              ),
              picture(
                "top",
                2,
                { x: 0.5 + dx, y: 0.5 + dy, width, height },
                {
                  edge: PRINT(),
                  channels: {
                    turnDegrees: keys([600, 10, "arrive"], [1900, 3]),
                    x: arriving(600, 1.5, 0.5 + dx, 1300)
                  }
                }
              )
            ]
          })
        ]
      };
    };
    return [
      pair("two wide pictures", "wide", 1.45),
      pair("two upright pictures", "upright", 0.72),
      pair("two pictures", "any", 1.05)
    ];
  }
});
var oneAndOthers = shipped({
  id: "one-and-others",
  name: "One and the others",
  shelf: "Several pictures",
  description: "One picture large, two to five small ones in a column of colour beside it.",
  posterMs: 4e3,
  fits: (stage) => [3, 4, 5, 6].map((count) => {
    const { palette } = stage;
    const tall = stage.aspect < 0.9;
    const split = tall ? 0.62 : stage.aspect < 1.2 ? 0.68 : 0.7;
    const small = count - 1;
    const pad = 0.035;
    const within2 = tall ? { left: stage.w(pad), top: split + stage.h(pad), right: 1 - stage.w(pad), bottom: 1 - stage.h(pad) } : { left: split + stage.w(pad), top: stage.h(pad), right: 1 - stage.w(pad), bottom: 1 - stage.h(pad) };
    const counts = tall ? rowsFor(small, (within2.right - within2.left) / (within2.bottom - within2.top) * stage.aspect, 1.1) : rowsFor(small, (within2.right - within2.left) / (within2.bottom - within2.top) * stage.aspect, 1.2);
    const boxes = rows2(counts, within2, stage.w(0.025), stage.h(0.025));
    return {
      windows: [...windows("Large"), ...numbered(small, "Small")],
      slides: [
        slide({
          lengthMs: 6e3 + count * 300,
          backing: plain(palette.accent),
          layers: [
            picture("large", 1, tall ? edges(0, 0, 1, split) : edges(0, 0, split, 1)),
            ...boxes.map(
              (box2, index) => picture(`small-${index + 1}`, index + 2, box2, {
                channels: tall ? { y: arriving(700 + index * 350, 1.3, box2.y) } : { x: arriving(700 + index * 350, 1.3, box2.x) }
              })
            )
          ]
        })
      ]
    };
  })
});
var onTheTable = shipped({
  id: "on-the-table",
  name: "On the table",
  shelf: "Several pictures",
  description: "Three to nine prints thrown on a table one after the other, none hiding what the others are about.",
  posterMs: 6e3,
  fits: (stage) => [3, 4, 5, 6, 7, 8, 9].map((count) => {
    const lean = [-5, 4, -2.5, 6, -4, 2, -6, 3.5, -1.5];
    const counts = rowsOfLargest(count, stage.aspect, 1.2);
    const cells2 = rows2(
      counts,
      { left: stage.w(0.05), top: stage.h(0.05), right: 1 - stage.w(0.05), bottom: 1 - stage.h(0.05) },
      0,
      0
    );
    return {
      windows: numbered(count, "Print"),
      slides: [
        slide({
          lengthMs: 4500 + count * 700,
          backing: {
            kind: "gradient",
            gradient: {
              kind: "radial",
              stops: [
                { at: 0, colour: stage.palette.soft },
                { at: 1, colour: stage.palette.ink }
              ]
            }
          },
          layers: cells2.map((cell, index) => {
            const side = Math.min(cell.width * stage.aspect, cell.height * 1.25) * 0.97;
            const box2 = { x: cell.x, y: cell.y, width: side / stage.aspect, height: side / 1.2 };
            const atMs = 200 + index * 620;
            const outside = index % 2 === 0 ? -0.4 : 1.4;
            return picture(`print-${index + 1}`, index + 1, box2, {
              edge: PRINT(0.045),
              channels: {
                x: arriving(atMs, outside, box2.x, 900),
                y: arriving(atMs, 1.2, box2.y, 900),
                turnDegrees: keys([atMs, lean[index] * 7, "arrive"], [atMs + 950, lean[index]])
              }
            });
          })
        })
      ]
    };
  })
});
var tiles = shipped({
  id: "tiles",
  name: "Tiles",
  shelf: "Several pictures",
  description: "Two to nine pictures edge to edge, each opening in its own tile.",
  posterMs: 5e3,
  fits: (stage) => [2, 3, 4, 5, 6, 7, 8, 9].flatMap(
    (count) => ["any", "upright"].map((suits) => {
      const counts = rowsFor(count, stage.aspect, suits === "upright" ? 0.75 : 1.3);
      const boxes = rows2(counts, { left: 0, top: 0, right: 1, bottom: 1 }, stage.w(0.012), stage.h(0.012));
      return {
        name: suits === "upright" ? `${count} upright pictures` : `${count} pictures`,
        suits,
        windows: numbered(count, "Tile"),
        slides: [
          slide({
            lengthMs: 4500 + count * 450,
            backing: plain(stage.palette.paper),
            layers: boxes.map(
              (box2, index) => picture(`tile-${index + 1}`, index + 1, box2, {
                channels: {
                  ...index % 2 === 0 ? { cropRight: keys([200 + index * 300, 1, "settle"], [1300 + index * 300, 0]) } : { cropTop: keys([200 + index * 300, 1, "settle"], [1300 + index * 300, 0]) }
                }
              })
            )
          })
        ]
      };
    })
  )
});
var steppingStones = shipped({
  id: "stepping-stones",
  name: "Stepping stones",
  shelf: "Several pictures",
  description: "Three to six round pictures that come up one after the other along a curve.",
  posterMs: 5200,
  fits: (stage) => [3, 4, 5, 6].map((count) => {
    const { palette } = stage;
    const tall = stage.isUpright;
    const long = tall ? 1 / stage.aspect : stage.aspect;
    const across = Math.min(0.5, (long - 0.12) / (count * 0.62 + 0.4));
    const spots = Array.from({ length: count }, (_, index) => {
      const share = count === 1 ? 0.5 : index / (count - 1);
      const along2 = 0.06 + across / 2 + share * (long - 0.12 - across);
      const over = 0.5 + (index % 2 === 0 ? -1 : 1) * Math.min(0.25, 0.47 - across / 2);
      return tall ? { x: over, y: along2 / long } : { x: along2 / long, y: over };
    });
    return {
      windows: numbered(count, "Stone"),
      slides: [
        slide({
          lengthMs: 4800 + count * 600,
          backing: plain(palette.ink),
          layers: spots.map((spot, index) => {
            const atMs = 250 + index * 520;
            return picture(
              `stone-${index + 1}`,
              index + 1,
              { ...spot, width: stage.w(across), height: stage.h(across) },
              {
                edge: {
                  shape: { kind: "ellipse" },
                  outline: {
                    width: 0.022,
                    colour: index % 2 === 0 ? palette.accent : palette.soft,
                    where: "outside"
                  }
                },
                channels: {
                  width: keys([atMs, 1e-3, "swing"], [atMs + 1e3, stage.w(across)]),
                  height: keys([atMs, 1e-3, "swing"], [atMs + 1e3, stage.h(across)])
                }
              }
            );
          })
        })
      ]
    };
  })
});
var lightTable = shipped({
  id: "light-table",
  name: "Light table",
  shelf: "Several pictures",
  description: "Four to eight pictures on one long strip that is drawn slowly through the frame.",
  posterMs: 5e3,
  fits: (stage) => [4, 5, 6, 7, 8].map((count) => {
    const { palette } = stage;
    const tall = stage.isUpright;
    const [each, gap] = [tall ? stage.h(0.62) : stage.w(1), tall ? stage.h(0.045) : stage.w(0.045)];
    const total = count * each + (count - 1) * gap;
    const lengthMs = 4e3 + count * 1500;
    const inner = (index) => each / 2 + index * (each + gap);
    const [from, to] = [0.5 - 0.5 + 0.06, 1 - total - 0.06];
    return {
      windows: numbered(count, "On the strip"),
      slides: [
        slide({
          lengthMs,
          transition: { kind: "dissolve", lengthMs: 900 },
          backing: plain(palette.paper),
          layers: [
            ...(tall ? [edges(0.06, 0, 0.94, 1)] : [edges(0, 0.13, 1, 0.87)]).map(
              (box2) => solid("strip", palette.ink, box2)
            ),
            ...Array.from({ length: count }, (_, index) => {
              const at3 = inner(index);
              const travel = {
                keys: [
                  { at: { tied: "stretch", share: 0 }, value: from + at3, easing: "settle" },
                  { at: { tied: "stretch", share: 1 }, value: to + at3 }
                ]
              };
              return picture(
                `picture-${index + 1}`,
                index + 1,
                tall ? { x: 0.5, y: from + at3, width: 0.78, height: each } : { x: from + at3, y: 0.5, width: each, height: 0.62 },
                { channels: tall ? { y: travel } : { x: travel }, move: { kind: "automatic" } }
              );
            })
          ]
        })
      ]
    };
  })
});
var organPipes = shipped({
  id: "organ-pipes",
  name: "Organ pipes",
  shelf: "Several pictures",
  description: "Three to five upright pictures of different heights side by side, as upright ones like it.",
  posterMs: 4200,
  fits: (stage) => [3, 4, 5].map((count) => {
    const heights = [0.72, 0.9, 0.8, 0.94, 0.7];
    const tall = stage.isUpright;
    const gap = tall ? stage.h(0.02) : stage.w(0.03);
    const margin = tall ? stage.h(0.06) : stage.w(0.07);
    const each = (1 - 2 * margin - gap * (count - 1)) / count;
    return {
      suits: "upright",
      name: `${count} upright pictures`,
      windows: numbered(count, "Pipe"),
      slides: [
        slide({
          lengthMs: 5e3 + count * 500,
          backing: { kind: "blurred", amount: 0.06, darkness: 0.55 },
          layers: Array.from({ length: count }, (_, index) => {
            const size = heights[index];
            const at3 = margin + each / 2 + index * (each + gap);
            const box2 = tall ? { x: 0.5 + (index % 2 === 0 ? -0.5 : 0.5) * (0.92 - size), y: at3, width: size, height: each } : { x: at3, y: 0.5 + (index % 2 === 0 ? 0.5 : -0.5) * (0.94 - size), width: each, height: size };
            const atMs = 150 + index * 380;
            return picture(`pipe-${index + 1}`, index + 1, box2, {
              channels: tall ? { x: arriving(atMs, index % 2 === 0 ? -0.6 : 1.6, box2.x, 1200) } : { y: arriving(atMs, index % 2 === 0 ? 1.6 : -0.6, box2.y, 1200) },
              edge: { shadow: { x: 0, y: 8e-3, softness: 0.02, colour: "#000000", opacity: 0.45 } }
            });
          })
        })
      ]
    };
  })
});
var albumPage = shipped({
  id: "album-page",
  name: "Album page",
  shelf: "Several pictures",
  description: "A page of a printed album: two to four pictures on paper with photo corners, and a line in handwriting.",
  posterMs: 4600,
  fits: (stage) => [2, 3, 4].map((count) => {
    const { palette } = stage;
    const page = edges(stage.w(0.06), stage.h(0.06), 1 - stage.w(0.06), 1 - stage.h(0.06));
    const within2 = { left: stage.w(0.13), top: stage.h(0.13), right: 1 - stage.w(0.13), bottom: 1 - stage.h(0.3) };
    const counts = rowsFor(count, (within2.right - within2.left) / (within2.bottom - within2.top) * stage.aspect, 1.25);
    const boxes = rows2(counts, within2, stage.w(0.06), stage.h(0.06));
    const corner = 0.035;
    return {
      windows: numbered(count, "On the page"),
      slides: [
        slide({
          lengthMs: 6500 + count * 600,
          transition: { kind: "page-turn", lengthMs: 1500, direction: "left" },
          backing: plain(palette.soft),
          layers: [
            form("page", { kind: "rectangle", radius: 0.01 }, palette.paper, page, {
              edge: { shadow: { x: 4e-3, y: 0.012, softness: 0.02, colour: "#000000", opacity: 0.4 } }
            }),
            ...boxes.map(
              (box2, index) => picture(`picture-${index + 1}`, index + 1, box2, {
                channels: { opacity: appearing(900 + index * 450, 700) }
              })
            ),
            ...boxes.flatMap(
              (box2, index) => [
                [-1, -1],
                [1, -1],
                [1, 1],
                [-1, 1]
              ].map(
                ([sideX, sideY], at3) => form(
                  `corner-${index + 1}-${at3 + 1}`,
                  { kind: "free", path: "M0 0H100L0 100Z" },
                  palette.ink,
                  {
                    x: box2.x + sideX * (box2.width / 2 - stage.w(corner / 2 - 6e-3)),
                    y: box2.y + sideY * (box2.height / 2 - stage.h(corner / 2 - 6e-3)),
                    width: stage.w(corner),
                    height: stage.h(corner)
                  },
                  { channels: { turnDegrees: at3 * 90, opacity: appearing(700 + index * 450, 300) } }
                )
              )
            ),
            words(stage, "words", {
              across: ["centre", 0.5],
              down: ["middle", 1 - stage.h(0.185)],
              width: 0.78,
              room: stage.h(0.16),
              size: 0.085,
              colour: palette.ink,
              style: { font: "caveat", weight: 500, letterSpacing: 0 },
              come: coming(1800, "type", "letter", 1500)
            })
          ]
        })
      ],
      words: [field("words", "title", "Handwritten line", "words")]
    };
  })
});
var contactGrid = shipped({
  id: "stamps",
  name: "Sheet of stamps",
  shelf: "Several pictures",
  description: "Four, six or eight pictures as a sheet of perforated stamps.",
  posterMs: 5200,
  fits: (stage) => [4, 6, 8].map((count) => {
    const { palette } = stage;
    const counts = rowsOfLargest(count, stage.aspect, stage.isUpright ? 0.85 : 1.2);
    const cells2 = rows2(
      counts,
      { left: stage.w(0.07), top: stage.h(0.06), right: 1 - stage.w(0.07), bottom: 1 - stage.h(0.06) },
      stage.w(0.02),
      stage.h(0.02)
    );
    const ratio = stage.isUpright ? 0.85 : 1.2;
    return {
      windows: numbered(count, "Stamp"),
      slides: [
        slide({
          lengthMs: 5e3 + count * 350,
          backing: plain(palette.accent),
          layers: cells2.flatMap((cell, index) => {
            const height = Math.min(cell.height, cell.width * stage.aspect / ratio);
            const outer = { x: cell.x, y: cell.y, height, width: height * ratio / stage.aspect };
            const inner = { ...outer, width: outer.width * 0.84, height: outer.height * 0.81 };
            const come = appearing(200 + index * 260, 450);
            return [
              form(`paper-${index + 1}`, { kind: "free", path: STAMP }, palette.paper, outer, {
                channels: { opacity: come }
              }),
              picture(`stamp-${index + 1}`, index + 1, inner, { channels: { opacity: come } })
            ];
          })
        })
      ]
    };
  })
});
var STAMP = stampPath();
function stampPath() {
  const bites = [0, 1, 2, 3, 4, 5, 6, 7].map((bite) => 6.5 + 11 * bite);
  const top = bites.map((at3) => `L${at3} 0Q${at3 + 5} 7 ${at3 + 10} 0`).join("");
  const right2 = bites.map((at3) => `L100 ${at3}Q93 ${at3 + 5} 100 ${at3 + 10}`).join("");
  const back = [...bites].reverse().map((at3) => at3 + 10);
  const bottom2 = back.map((at3) => `L${at3} 100Q${at3 - 5} 93 ${at3 - 10} 100`).join("");
  const left = back.map((at3) => `L0 ${at3}Q7 ${at3 - 5} 0 ${at3 - 10}`).join("");
  return `M0 0${top}L100 0${right2}L100 100${bottom2}L0 100${left}Z`;
}
var COLLAGES = [
  twoHands,
  oneAndOthers,
  onTheTable,
  tiles,
  steppingStones,
  lightTable,
  organPipes,
  albumPage,
  contactGrid
];

// src/core/mounts/shipped/openers.ts
var TITLES = [field("words", "title", "Title", "title"), field("words", "subtitle", "Below the title", "dates")];
var lowSun = shipped({
  id: "low-sun",
  name: "Low sun",
  shelf: "Openers",
  description: "One picture, and the title in the dusk that rises from below.",
  posterMs: 4500,
  fits: (stage) => [
    {
      windows: windows("Picture"),
      slides: [
        slide({
          lengthMs: 7e3,
          transition: { kind: "dip", lengthMs: 1600 },
          layers: [
            picture("picture", 1, null),
            { ...veil("dusk", stage.palette.ink, 90, 0.9, null, 0.3), channels: { opacity: appearing(300, 1600) } },
            form(
              "line",
              { kind: "rectangle" },
              stage.palette.accent,
              edges(stage.w(0.09), 0.905, stage.w(0.25), 0.905 + stage.h(8e-3)),
              {
                channels: { cropRight: keys([900, 1, "arrive"], [2e3, 0]) }
              }
            ),
            words(stage, "words", {
              across: ["left", stage.w(0.09)],
              down: ["bottom", 0.875],
              width: 1 - stage.w(0.18),
              room: 0.42,
              size: 0.125,
              colour: "#ffffff",
              come: coming(1e3, "rise", "word", 1500)
            })
          ]
        })
      ],
      words: TITLES
    }
  ]
});
var archway = shipped({
  id: "archway",
  name: "Archway",
  shelf: "Openers",
  description: "A picture in an arch on paper, and the title beside it.",
  posterMs: 4500,
  fits: (stage) => {
    const { palette } = stage;
    const tall = stage.aspect < 1.4;
    const box2 = tall ? edges(0.5 - stage.w(0.3), 0.09, 0.5 + stage.w(0.3), 0.09 + Math.min(0.52, stage.h(0.78))) : edges(1 - stage.w(0.13) - stage.w(0.62), 0.1, 1 - stage.w(0.13), 1);
    const arch = tall ? "M0 100V42C0 16 22 0 50 0C78 0 100 16 100 42V100Z" : "M0 100V36C0 13 20 0 50 0C80 0 100 13 100 36V100Z";
    return [
      {
        windows: windows("In the arch"),
        slides: [
          slide({
            lengthMs: 7e3,
            backing: plain(palette.paper),
            layers: [
              form(
                "rim",
                { kind: "free", path: arch },
                palette.soft,
                { ...box2, x: box2.x + stage.w(0.022), y: box2.y - stage.h(0.022) },
                {
                  channels: { y: arriving(200, box2.y + 0.5, box2.y - stage.h(0.022), 1500) }
                }
              ),
              picture("picture", 1, box2, {
                edge: { shape: { kind: "free", path: arch } },
                channels: { y: arriving(0, box2.y + 0.6, box2.y, 1500) }
              }),
              words(stage, "words", {
                across: tall ? ["centre", 0.5] : ["left", stage.w(0.13)],
                down: tall ? ["top", box2.y + box2.height / 2 + stage.h(0.06)] : ["middle", 0.5],
                width: tall ? 0.86 : box2.x - box2.width / 2 - stage.w(0.21),
                room: tall ? 1 - (box2.y + box2.height / 2) - stage.h(0.14) : 0.7,
                size: 0.1,
                colour: palette.ink,
                accent: palette.accent,
                come: coming(1200, "rise", "line", 1200)
              })
            ]
          })
        ],
        words: TITLES
      }
    ];
  }
});
var threeStrips = shipped({
  id: "three-strips",
  name: "Three strips",
  shelf: "Openers",
  description: "Three pictures in strips that slide in by turns, and the title on a band across them.",
  posterMs: 5200,
  fits: (stage) => {
    const { palette } = stage;
    const gap = 0.014;
    const strips = [0, 1, 2].map((index) => {
      if (stage.isUpright) {
        const each2 = (1 - 2 * stage.h(gap)) / 3;
        return { x: 0.5, y: each2 / 2 + index * (each2 + stage.h(gap)), width: 1, height: each2 };
      }
      const each = (1 - 2 * stage.w(gap)) / 3;
      return { x: each / 2 + index * (each + stage.w(gap)), y: 0.5, width: each, height: 1 };
    });
    const from = (index) => index % 2 === 0 ? 1.5 : -0.5;
    const band = stage.isUpright ? edges(0, 0.4, 1, 0.6) : edges(0, 0.5 - stage.h(0.17), 1, 0.5 + stage.h(0.17));
    return [
      {
        windows: windows("First strip", "Middle strip", "Last strip"),
        suits: "any",
        slides: [
          slide({
            lengthMs: 8e3,
            backing: plain(palette.ink),
            layers: [
              ...strips.map(
                (box2, index) => picture(`strip-${index + 1}`, index + 1, box2, {
                  channels: stage.isUpright ? { x: arriving(150 + index * 350, from(index), box2.x, 1300) } : { y: arriving(150 + index * 350, from(index), box2.y, 1300) }
                })
              ),
              solid("band", palette.ink, band, {
                opacity: keys([1900, 0], [2700, 0.86]),
                height: arriving(1900, 0.01, band.height, 900)
              }),
              words(stage, "words", {
                across: ["centre", 0.5],
                down: ["middle", 0.5],
                width: 0.84,
                room: band.height - stage.h(0.05),
                size: 0.105,
                colour: palette.paper,
                accent: palette.soft,
                come: coming(2500, "fade", "letter", 1400)
              })
            ]
          })
        ],
        words: TITLES
      }
    ];
  }
});
var parting = shipped({
  id: "parting",
  name: "Two leaves",
  shelf: "Openers",
  description: "The title on a plain sheet that parts in the middle and shows the first picture.",
  posterMs: 2200,
  fits: (stage) => {
    const { palette } = stage;
    const leaf = (id, box2, to) => solid(
      id,
      palette.paper,
      box2,
      stage.isUpright ? { y: keys([3300, box2.y, "settle"], [4900, to]) } : { x: keys([3300, box2.x, "settle"], [4900, to]) }
    );
    return [
      {
        windows: windows("Behind the leaves"),
        slides: [
          slide({
            lengthMs: 8500,
            transition: { kind: "dissolve", lengthMs: 600 },
            layers: [
              picture("picture", 1, null),
              ...stage.isUpright ? [leaf("upper", edges(0, 0, 1, 0.503), -0.26), leaf("lower", edges(0, 0.497, 1, 1), 1.26)] : [leaf("left", edges(0, 0, 0.503, 1), -0.26), leaf("right", edges(0.497, 0, 1, 1), 1.26)],
              form(
                "line",
                { kind: "rectangle" },
                palette.accent,
                { x: 0.5, y: 0.5 + stage.h(0.2), width: stage.w(0.22), height: stage.h(6e-3) },
                {
                  channels: {
                    width: keys([400, 1e-3, "arrive"], [1400, stage.w(0.22)]),
                    opacity: keys([3e3, 1], [3300, 0])
                  }
                }
              ),
              words(stage, "words", {
                across: ["centre", 0.5],
                down: ["middle", 0.5],
                width: 0.82,
                room: stage.h(0.34),
                size: 0.125,
                colour: palette.ink,
                accent: palette.accent,
                come: coming(300, "blur", "all", 900),
                channels: { opacity: keys([2900, 1], [3300, 0]) }
              })
            ]
          })
        ],
        words: TITLES
      }
    ];
  }
});
var letterhead = shipped({
  id: "letterhead",
  name: "Letterhead",
  shelf: "Openers",
  description: "No picture: the title between two fine lines that draw themselves.",
  posterMs: 3500,
  fits: (stage) => {
    const { palette } = stage;
    const reach2 = stage.aspect < 1.2 ? 0.4 : 0.32;
    const line = (id, y, side) => form(
      id,
      { kind: "rectangle" },
      palette.accent,
      { x: 0.5, y, width: 2 * reach2, height: stage.h(5e-3) },
      {
        channels: { [side === 1 ? "cropRight" : "cropLeft"]: keys([200, 1, "settle"], [1700, 0]) }
      }
    );
    return [
      {
        slides: [
          slide({
            lengthMs: 5500,
            transition: { kind: "dip", lengthMs: 1200, colour: palette.ink },
            backing: plain(palette.ink),
            layers: [
              line("above", 0.5 - stage.h(0.24), 1),
              line("below", 0.5 + stage.h(0.24), -1),
              words(stage, "words", {
                across: ["centre", 0.5],
                down: ["middle", 0.5],
                width: 2 * reach2 + 0.06,
                room: stage.h(0.4),
                size: 0.12,
                colour: palette.paper,
                accent: palette.soft,
                come: coming(800, "fade", "letter", 1600),
                channels: { width: drifting(1, 1.04), height: drifting(1, 1.04) }
              })
            ]
          })
        ],
        words: TITLES
      }
    ];
  }
});
var firstLight = shipped({
  id: "first-light",
  name: "First light",
  shelf: "Openers",
  description: "The picture comes out of the dark and into focus under the title, which then leaves it alone.",
  posterMs: 2600,
  fits: (stage) => [
    {
      windows: windows("Picture"),
      slides: [
        slide({
          lengthMs: 8500,
          transition: { kind: "dip", lengthMs: 1e3 },
          layers: [
            picture("picture", 1, null, { channels: { blur: keys([0, 0.045], [2600, 0.03, "settle"], [5200, 0]) } }),
            solid("night", stage.palette.ink, null, {
              opacity: keys([0, 0.92], [1200, 0.66], [3600, 0.66, "settle"], [5200, 0])
            }),
            words(stage, "words", {
              across: ["centre", 0.5],
              down: ["middle", 0.5],
              width: 0.84,
              room: 0.6,
              size: 0.14,
              colour: "#ffffff",
              come: { entrance: { way: "blur", by: "word", atMs: 500, lengthMs: 1400 }, exit: null },
              channels: { opacity: keys([3700, 1], [4700, 0]) }
            })
          ]
        })
      ],
      words: TITLES
    }
  ]
});
var OPENERS = [lowSun, archway, threeStrips, parting, letterhead, firstLight];

// src/core/mounts/shipped/shipped-mounts.ts
var SHIPPED_MOUNTS = [...OPENERS, ...CARDS, ...COLLAGES, ...BUILDS, ...CLOSERS, ...LOGOS];

// src/drawing/kernel-module.ts
var FULL_OPACITY = 32767;
function q15(share) {
  return Math.round(Math.min(1, Math.max(0, share)) * FULL_OPACITY);
}
async function loadKernels(wasm) {
  const { instance } = await WebAssembly.instantiate(wasm, {
    env: {
      abort: (_message, _file, line, column2) => {
        throw new Error(`a drawing kernel stopped at ${line}:${column2}`);
      }
    }
  });
  return instance.exports;
}
function bytesOf(kernels) {
  return new Uint8Array(kernels.memory.buffer);
}

// src/drawing/planes/draw-upright.ts
var LEAST_SHARE = 1e-6;
function drawUpright(kernels, surface, picture2, across, down, reach2, share) {
  const opacity = q15(share);
  const { left, right: right2, top, bottom: bottom2 } = reach2;
  const full = (from, to) => {
    kernels.drawUpright(
      from,
      picture2.alpha,
      picture2.yStride,
      picture2.widthPx,
      picture2.heightPx,
      to,
      surface.yStride,
      surface.widthPx,
      surface.heightPx,
      across.scale * 0.5 + across.offset - 0.5,
      across.scale,
      down.scale * 0.5 + down.offset - 0.5,
      down.scale,
      left,
      right2,
      top,
      bottom2,
      opacity
    );
  };
  full(picture2.y, surface.y);
  if (surface.u === 0) return;
  const startX = (across.scale * 0.5 + across.offset - 0.5) / 2;
  const startY = (down.scale + down.offset - 1) / 2;
  const edge = (luma) => (luma - 0.5) / 2 + 0.5;
  const chromaLeft = left <= LEAST_SHARE ? 0 : edge(left);
  const half = (from, to) => {
    kernels.drawUpright(
      from,
      picture2.halfAlpha,
      picture2.cStride,
      picture2.widthPx + 1 >> 1,
      picture2.heightPx + 1 >> 1,
      to,
      surface.cStride,
      surface.widthPx / 2,
      surface.heightPx / 2,
      startX,
      across.scale,
      startY,
      down.scale,
      chromaLeft,
      edge(right2),
      top / 2,
      bottom2 / 2,
      opacity
    );
  };
  half(picture2.u, surface.u);
  half(picture2.v, surface.v);
  if (surface.alpha === 0) return;
  if (picture2.alpha !== 0) {
    full(picture2.alpha, surface.alpha);
    half(picture2.halfAlpha, surface.halfAlpha);
    return;
  }
  const white2 = kernels.whitePlane();
  kernels.drawUpright(
    white2,
    0,
    0,
    1,
    1,
    surface.alpha,
    surface.yStride,
    surface.widthPx,
    surface.heightPx,
    0,
    0,
    0,
    0,
    left,
    right2,
    top,
    bottom2,
    opacity
  );
  kernels.drawUpright(
    white2,
    0,
    0,
    1,
    1,
    surface.halfAlpha,
    surface.cStride,
    surface.widthPx / 2,
    surface.heightPx / 2,
    0,
    0,
    0,
    0,
    chromaLeft,
    edge(right2),
    top / 2,
    bottom2 / 2,
    opacity
  );
}

// src/drawing/planes/draw-quad.ts
var MOST_EDGES = 16;
var FIELDS = 27;
var WHOLE_BOX = [
  { x: 0, y: 0 },
  { x: 1, y: 0 },
  { x: 1, y: 1 },
  { x: 0, y: 1 }
];
function drawQuad(kernels, surface, picture2, toScreen, toSamples, outline, opacity) {
  if (outline.length < 3 || outline.length > MOST_EDGES || opacity <= 0) return;
  const seen2 = screenEdges(outline, toScreen);
  const back = inverse3(toScreen);
  if (!seen2 || !back) return;
  const bounds = evenRect(rectAround(seen2.points, 1), surface);
  if (!bounds) return;
  const map = times3(toSamples, back);
  if (isUpright(map, surface) && seen2.edges.every(({ a, b }) => Math.min(Math.abs(a), Math.abs(b)) < 1e-6)) {
    const [xs, ys] = [seen2.points.map(({ x }) => x), seen2.points.map(({ y }) => y)];
    const reach2 = { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) };
    drawUpright(
      kernels,
      surface,
      picture2,
      { scale: map[0] / map[8], offset: map[2] / map[8] + 0.5 },
      { scale: map[4] / map[8], offset: map[5] / map[8] + 0.5 },
      reach2,
      Math.min(1, opacity)
    );
    return;
  }
  const draw = (sources, stride, width, height, targets, targetStride, rect, matrix, edges2) => {
    const order2 = new Float64Array(kernels.memory.buffer, kernels.quadOrder(), FIELDS + 3 * MOST_EDGES);
    order2.set([
      ...sources,
      stride,
      width,
      height,
      ...targets,
      targetStride,
      Math.min(1, opacity),
      rect.left,
      rect.top,
      rect.right,
      rect.bottom,
      edges2.length,
      ...matrix
    ]);
    edges2.forEach((edge, index) => order2.set([edge.a, edge.b, edge.c], FIELDS + 3 * index));
    kernels.drawQuad();
  };
  draw(
    [picture2.y, 0, picture2.alpha],
    picture2.yStride,
    picture2.widthPx,
    picture2.heightPx,
    [surface.y, 0, surface.alpha],
    surface.yStride,
    bounds,
    map,
    seen2.edges
  );
  if (surface.u === 0) return;
  const chromaMap = times3([0.5, 0, 0, 0, 0.5, -0.25, 0, 0, 1], times3(map, [2, 0, -0.5, 0, 2, 0, 0, 0, 1]));
  const chromaEdges = seen2.edges.map(({ a, b, c: c2 }) => ({ a, b, c: (c2 - 0.5 * a) / 2 }));
  const chromaRect = { left: bounds.left / 2, top: bounds.top / 2, right: bounds.right / 2, bottom: bounds.bottom / 2 };
  draw(
    [picture2.u, picture2.v, picture2.halfAlpha],
    picture2.cStride,
    picture2.widthPx + 1 >> 1,
    picture2.heightPx + 1 >> 1,
    [surface.u, surface.v, surface.halfAlpha],
    surface.cStride,
    chromaRect,
    chromaMap,
    chromaEdges
  );
}
function isUpright(map, { widthPx, heightPx }) {
  const [m0, m1, , m3, m4, , m6, m7, m8] = map.map((value) => value / map[8]);
  const depth = Math.abs(m6) * widthPx + Math.abs(m7) * heightPx;
  return m8 === 1 && m0 > 0 && m4 > 0 && Math.abs(m1) * heightPx < 1e-3 && Math.abs(m3) * widthPx < 1e-3 && depth * Math.max(m0 * widthPx, m4 * heightPx) < 1e-3;
}
function transparencyOf(planes) {
  return { ...planes, y: planes.alpha, u: 0, v: 0, alpha: 0, halfAlpha: 0 };
}
function bitmapSamples(bitmap) {
  return [bitmap.widthPx, 0, -0.5, 0, bitmap.heightPx, -0.5, 0, 0, 1];
}
function rectAround(points, room) {
  return {
    left: Math.floor(Math.min(...points.map((point) => point.x)) - room),
    top: Math.floor(Math.min(...points.map((point) => point.y)) - room),
    right: Math.ceil(Math.max(...points.map((point) => point.x)) + room),
    bottom: Math.ceil(Math.max(...points.map((point) => point.y)) + room)
  };
}
function evenRect(rect, surface) {
  const out2 = {
    left: Math.max(0, rect.left) & ~1,
    top: Math.max(0, rect.top) & ~1,
    right: Math.min(surface.widthPx, rect.right + 1 & ~1),
    bottom: Math.min(surface.heightPx, rect.bottom + 1 & ~1)
  };
  return out2.left < out2.right && out2.top < out2.bottom ? out2 : null;
}

// src/drawing/planes/draw-picture.ts
var LEAST_TURN_DEGREES = 1e-4;
function drawPicture(kernels, surface, picture2, framing, opacity) {
  if (opacity <= 0) return;
  if (Math.abs(framing.turnDegrees) < LEAST_TURN_DEGREES) drawFramed(kernels, surface, picture2, framing, opacity);
  else
    drawQuad(
      kernels,
      surface,
      picture2,
      [surface.widthPx, 0, 0, 0, surface.heightPx, 0, 0, 0, 1],
      framingSamples(framing, picture2),
      framedOutline(framing, picture2),
      opacity
    );
}
function framingSamples(framing, picture2) {
  const radians = framing.turnDegrees * Math.PI / 180;
  const [cos, sin2] = [Math.cos(radians), Math.sin(radians)];
  const [w, h] = [framing.width * picture2.widthPx, framing.height * picture2.heightPx];
  const x = framing.x * picture2.widthPx - cos * w / 2 + sin2 * h / 2 - 0.5;
  const y = framing.y * picture2.heightPx - sin2 * w / 2 - cos * h / 2 - 0.5;
  return [cos * w, -sin2 * h, x, sin2 * w, cos * h, y, 0, 0, 1];
}
function framedOutline(framing, picture2, within2 = WHOLE_BOX) {
  const back = inverse3(framingSamples(framing, picture2));
  const [w, h] = [picture2.widthPx - 0.5, picture2.heightPx - 0.5];
  const slack = LEAST_SHARE;
  const corners = [mapped(back, -0.5, -0.5), mapped(back, w, -0.5), mapped(back, w, h), mapped(back, -0.5, h)];
  if (framing.turnDegrees === 0 && corners[0].x <= slack && corners[0].y <= slack && corners[2].x >= 1 - slack && corners[2].y >= 1 - slack)
    return [...within2];
  return cutPolygon(within2, corners);
}
function axis(centre2, size, pictureSamples, frameSamples) {
  return { scale: size * pictureSamples / frameSamples, offset: (centre2 - size / 2) * pictureSamples };
}
function drawFramed(kernels, surface, picture2, framing, share, reach2) {
  const across = axis(framing.x, framing.width, picture2.widthPx, surface.widthPx);
  const down = axis(framing.y, framing.height, picture2.heightPx, surface.heightPx);
  drawUpright(
    kernels,
    surface,
    picture2,
    across,
    down,
    reach2 ?? {
      left: -across.offset / across.scale,
      right: (picture2.widthPx - across.offset) / across.scale,
      top: -down.offset / down.scale,
      bottom: (picture2.heightPx - down.offset) / down.scale
    },
    share
  );
}

// src/drawing/planes/picture-planes.ts
var PAD_LEFT = 16;
var PAD_RIGHT = 32;
var PAD_ROWS = 4;
function planesFromPixels(kernels, pixels) {
  const { widthPx, heightPx, rgba } = pixels;
  if (rgba.length !== widthPx * heightPx * 4)
    throw new RangeError(`rgba must hold ${widthPx} \xD7 ${heightPx} \xD7 4 bytes, got ${rgba.length}`);
  const planes = allocatePlanes(kernels, widthPx, heightPx, pixels.hasTransparency);
  const staging = kernels.allocate(rgba.length);
  bytesOf(kernels).set(rgba, staging);
  if (planes.alpha === 0)
    kernels.planesFromRgba(staging, widthPx, heightPx, planes.y, planes.yStride, planes.u, planes.v, planes.cStride);
  else
    kernels.planesFromTransparentRgba(
      staging,
      widthPx,
      heightPx,
      planes.y,
      planes.alpha,
      planes.yStride,
      planes.u,
      planes.v,
      planes.halfAlpha,
      planes.cStride
    );
  kernels.release(staging);
  padPlanes(kernels, planes);
  return planes;
}
function planesFromDecodedFrame(kernels, frame) {
  const { widthPx, heightPx, i420 } = frame;
  const planes = allocatePlanes(kernels, widthPx, heightPx, false);
  const cWidth = widthPx + 1 >> 1;
  const cHeight = heightPx + 1 >> 1;
  const memory = bytesOf(kernels);
  const put = (plane2, stride, from, width, height) => {
    for (let row = 0; row < height; row += 1)
      memory.set(i420.subarray(from + row * width, from + (row + 1) * width), plane2 + row * stride);
  };
  put(planes.y, planes.yStride, 0, widthPx, heightPx);
  put(planes.u, planes.cStride, widthPx * heightPx, cWidth, cHeight);
  put(planes.v, planes.cStride, widthPx * heightPx + cWidth * cHeight, cWidth, cHeight);
  padPlanes(kernels, planes);
  return planes;
}
function releasePlanes(kernels, planes) {
  kernels.release(planes.block);
}
function allocatePlanes(kernels, widthPx, heightPx, transparent) {
  const cWidth = widthPx + 1 >> 1;
  const cHeight = heightPx + 1 >> 1;
  const yStride = roundUp(PAD_LEFT + widthPx + PAD_RIGHT);
  const cStride = roundUp(PAD_LEFT + cWidth + PAD_RIGHT);
  const yBytes = yStride * (heightPx + 2 * PAD_ROWS);
  const cBytes = cStride * (cHeight + 2 * PAD_ROWS);
  const byteCount = transparent ? 2 * yBytes + 3 * cBytes : yBytes + 2 * cBytes;
  const block = kernels.allocate(byteCount);
  const yInset = PAD_ROWS * yStride + PAD_LEFT;
  const cInset = PAD_ROWS * cStride + PAD_LEFT;
  const chroma = block + yBytes;
  return {
    widthPx,
    heightPx,
    yStride,
    cStride,
    block,
    byteCount,
    y: block + yInset,
    u: chroma + cInset,
    v: chroma + cBytes + cInset,
    halfAlpha: transparent ? chroma + 2 * cBytes + cInset : 0,
    alpha: transparent ? chroma + 3 * cBytes + yInset : 0
  };
}
function padPlanes(kernels, planes) {
  const cWidth = planes.widthPx + 1 >> 1;
  const cHeight = planes.heightPx + 1 >> 1;
  for (const plane2 of [planes.y, planes.alpha])
    if (plane2) kernels.padPlane(plane2, planes.yStride, planes.widthPx, planes.heightPx, PAD_LEFT, PAD_RIGHT, PAD_ROWS);
  for (const plane2 of [planes.u, planes.v, planes.halfAlpha])
    if (plane2) kernels.padPlane(plane2, planes.cStride, cWidth, cHeight, PAD_LEFT, PAD_RIGHT, PAD_ROWS);
}
function roundUp(value) {
  return value + 15 & ~15;
}

// src/drawing/planes/surface.ts
function createSurface(kernels, widthPx, heightPx, transparent = false) {
  for (const side of [widthPx, heightPx])
    if (!(side > 0 && side % 2 === 0))
      throw new RangeError(`a frame's sides must be even and positive, got ${widthPx} \xD7 ${heightPx}`);
  return allocatePlanes(kernels, widthPx, heightPx, transparent);
}
function releaseSurface(kernels, surface) {
  releasePlanes(kernels, surface);
}
function copySurface(kernels, to, from) {
  kernels.copyBytes(to.block, from.block, from.byteCount);
}
function fillSurface(kernels, surface, colour) {
  const { y, u, v } = ycbcrOf(colour);
  kernels.fillBytes(surface.y, y, surface.yStride * surface.heightPx - PAD_LEFT);
  kernels.fillBytes(surface.u, u, surface.cStride * surface.heightPx / 2 - PAD_LEFT);
  kernels.fillBytes(surface.v, v, surface.cStride * surface.heightPx / 2 - PAD_LEFT);
}
function pixelsOf(kernels, surface) {
  const { widthPx, heightPx } = surface;
  const rowPx = rowOfRgba(widthPx);
  const rgba = kernels.allocate(rowPx * heightPx * 4);
  rgbaInto(kernels, surface, rgba);
  const out2 = new Uint8ClampedArray(widthPx * heightPx * 4);
  const memory = bytesOf(kernels);
  for (let row = 0; row < heightPx; row += 1)
    out2.set(memory.subarray(rgba + row * rowPx * 4, rgba + row * rowPx * 4 + widthPx * 4), row * widthPx * 4);
  kernels.release(rgba);
  return { widthPx, heightPx, rgba: out2, hasTransparency: false };
}
function rowOfRgba(widthPx) {
  return widthPx + 15 & ~15;
}
function rgbaInto(kernels, surface, rgba) {
  if (rowOfRgba(surface.widthPx) !== surface.widthPx) padPlanes(kernels, surface);
  kernels.rgbaFromPlanes(
    surface.y,
    surface.yStride,
    surface.u,
    surface.v,
    surface.cStride,
    rgba,
    rowOfRgba(surface.widthPx),
    surface.heightPx
  );
}
function ycbcrOf(colour) {
  if (!/^#[0-9a-f]{6}$/i.test(colour)) throw new RangeError(`a colour must read #rrggbb, got ${colour}`);
  const [r, g, b] = [1, 3, 5].map((at3) => Number.parseInt(colour.slice(at3, at3 + 2), 16));
  const half = 1 << 15;
  return {
    y: 11966 * r + 40254 * g + 4064 * b + (16 << 16) + half >> 16,
    u: -6596 * r - 22189 * g + 28784 * b + (128 << 16) + half >> 16,
    v: 28784 * r - 26145 * g - 2639 * b + (128 << 16) + half >> 16
  };
}

// src/drawing/planes/cels.ts
function createCels(kernels, widthPx, heightPx) {
  const all = [];
  const free = [];
  let scratch = 0;
  return {
    take() {
      const cel = free.pop() ?? createSurface(kernels, widthPx, heightPx, true);
      if (!all.includes(cel)) all.push(cel);
      return cel;
    },
    giveBack: (cel) => {
      free.push(cel);
    },
    get scratch() {
      if (scratch === 0) scratch = kernels.allocate(kernels.blurScratchBytes(widthPx, heightPx));
      return scratch;
    },
    close() {
      for (const cel of all) releaseSurface(kernels, cel);
      if (scratch !== 0) kernels.release(scratch);
    }
  };
}
function runRect(rect, surface) {
  const out2 = {
    left: Math.max(0, rect.left) & ~31,
    top: Math.max(0, rect.top) & ~1,
    right: Math.min(surface.widthPx, rect.right) + 31 & ~31,
    bottom: Math.min(surface.heightPx, rect.bottom + 1 & ~1)
  };
  return out2.left < Math.min(out2.right, surface.widthPx) && out2.top < out2.bottom ? out2 : null;
}
function planesIn(cel, rect) {
  const full = (plane2) => ({
    at: plane2 + rect.top * cel.yStride + rect.left,
    stride: cel.yStride,
    widthPx: rect.right - rect.left,
    heightPx: rect.bottom - rect.top
  });
  const half = (plane2) => ({
    at: plane2 + rect.top / 2 * cel.cStride + rect.left / 2,
    stride: cel.cStride,
    widthPx: (rect.right - rect.left) / 2,
    heightPx: (rect.bottom - rect.top) / 2
  });
  return [full(cel.y), full(cel.alpha), half(cel.u), half(cel.v), half(cel.halfAlpha)];
}
function clearCel(kernels, cel, rect) {
  for (const plane2 of planesIn(cel, rect)) kernels.fillPlane(plane2.at, plane2.stride, plane2.widthPx, plane2.heightPx, 0);
}
function layOver(kernels, target, cel, rect, opacity) {
  const share = q15(opacity);
  const to = planesIn(target, rect);
  const [y, alpha, u, v, halfAlpha] = planesIn(cel, rect);
  const cover = (into, from, by) => kernels.coverPlane(into.at, into.stride, from.at, by.at, from.stride, from.widthPx, from.heightPx, share);
  cover(to[0], y, alpha);
  cover(to[2], u, halfAlpha);
  cover(to[3], v, halfAlpha);
  if (target.alpha === 0) return;
  cover(to[1], alpha, alpha);
  cover(to[4], halfAlpha, halfAlpha);
}
function maskCel(kernels, cel, mask, rect) {
  const [, by, , , halfBy] = planesIn(mask, rect);
  const [y, alpha, u, v, halfAlpha] = planesIn(cel, rect);
  for (const plane2 of [y, alpha])
    kernels.scalePlane(plane2.at, plane2.stride, by.at, by.stride, plane2.widthPx, plane2.heightPx);
  for (const plane2 of [u, v, halfAlpha])
    kernels.scalePlane(plane2.at, plane2.stride, halfBy.at, halfBy.stride, plane2.widthPx, plane2.heightPx);
}
function makeMask(kernels, cels, cel, rect, how) {
  const [y, alpha, , , halfAlpha] = planesIn(cel, rect);
  if (how.by === "brightness")
    kernels.brightnessOf(y.at, alpha.at, y.stride, alpha.at, alpha.stride, y.widthPx, y.heightPx);
  if (how.inverted) kernels.invertPlane(alpha.at, alpha.stride, alpha.widthPx, alpha.heightPx);
  if (how.featherPx > 0)
    kernels.blurPlane(
      alpha.at,
      alpha.stride,
      alpha.at,
      alpha.stride,
      alpha.widthPx,
      alpha.heightPx,
      how.featherPx,
      cels.scratch
    );
  kernels.halvePlane(alpha.at, alpha.stride, halfAlpha.at, halfAlpha.stride, halfAlpha.widthPx, halfAlpha.heightPx);
}
function blurCel(kernels, cels, cel, rect, sigmaPx) {
  const [y, alpha, u, v, halfAlpha] = planesIn(cel, rect);
  for (const plane2 of cel.alpha === 0 ? [y] : [y, alpha])
    kernels.blurPlane(
      plane2.at,
      plane2.stride,
      plane2.at,
      plane2.stride,
      plane2.widthPx,
      plane2.heightPx,
      sigmaPx,
      cels.scratch
    );
  for (const plane2 of cel.alpha === 0 ? [u, v] : [u, v, halfAlpha])
    kernels.blurPlane(
      plane2.at,
      plane2.stride,
      plane2.at,
      plane2.stride,
      plane2.widthPx,
      plane2.heightPx,
      sigmaPx / 2,
      cels.scratch
    );
}
function layShadow(kernels, cels, target, cel, rect, shadow) {
  const own = cels.take();
  clearCel(kernels, own, rect);
  const [shifted2, blurred, , , half] = planesIn(own, rect);
  const [, alpha] = planesIn(cel, rect);
  kernels.blurPlane(
    alpha.at,
    alpha.stride,
    blurred.at,
    blurred.stride,
    alpha.widthPx,
    alpha.heightPx,
    shadow.blurPx,
    cels.scratch
  );
  const [w, h] = [blurred.widthPx, blurred.heightPx];
  kernels.drawUpright(
    blurred.at,
    0,
    blurred.stride,
    w,
    h,
    shifted2.at,
    shifted2.stride,
    w,
    h,
    -shadow.xPx,
    1,
    -shadow.yPx,
    1,
    Math.ceil(Math.max(0, shadow.xPx)),
    Math.floor(Math.min(w, w - 1 + shadow.xPx)),
    Math.ceil(Math.max(0, shadow.yPx)),
    Math.floor(Math.min(h, h - 1 + shadow.yPx)),
    32767
  );
  kernels.weakenPlane(shifted2.at, shifted2.stride, w, h, q15(shadow.opacity));
  kernels.halvePlane(shifted2.at, shifted2.stride, half.at, half.stride, half.widthPx, half.heightPx);
  const colour = ycbcrOf(shadow.colour);
  const to = planesIn(target, rect);
  kernels.tintPlane(to[0].at, to[0].stride, colour.y, shifted2.at, shifted2.stride, w, h);
  kernels.tintPlane(to[2].at, to[2].stride, colour.u, half.at, half.stride, half.widthPx, half.heightPx);
  kernels.tintPlane(to[3].at, to[3].stride, colour.v, half.at, half.stride, half.widthPx, half.heightPx);
  if (target.alpha !== 0) {
    kernels.coverPlane(to[1].at, to[1].stride, shifted2.at, shifted2.at, shifted2.stride, w, h, 32767);
    kernels.coverPlane(to[4].at, to[4].stride, half.at, half.at, half.stride, half.widthPx, half.heightPx, 32767);
  }
  cels.giveBack(own);
}
var MODES = { multiply: 1, screen: 2, overlay: 3, "soft-light": 4, lighten: 5, darken: 6, add: 7 };
function blendOver(kernels, target, cel, rect, opacity, mode) {
  kernels.blendPlanes(
    target.y,
    target.u,
    target.v,
    target.yStride,
    target.cStride,
    target.alpha,
    target.halfAlpha,
    cel.y,
    cel.u,
    cel.v,
    cel.alpha,
    cel.halfAlpha,
    rect.left,
    rect.top,
    Math.min(rect.right, target.widthPx),
    rect.bottom,
    opacity,
    MODES[mode]
  );
}

// src/core/light/tone.ts
var clamp = (value) => Math.min(1, Math.max(0, value));
function toneCurve(light) {
  const gain = 2 ** (light.exposure / 2.2);
  const span = Math.max(0.01, light.white - light.black);
  return (input) => {
    let y = clamp((input - light.black) / span * gain);
    y += 0.9 * light.shadows * y * (1 - y) ** 3;
    y += 0.9 * light.highlights * (1 - y) * y ** 3;
    y += light.contrast > 0 ? 0.8 * light.contrast * (3 * y * y - 2 * y ** 3 - y) : 0.6 * light.contrast * (y - 0.5);
    return clamp(y + light.paling * (1 - y));
  };
}
function chromaGain(light) {
  const curve = toneCurve({ ...light, paling: 0 });
  const strength = (light.saturation > 0 ? 1 + 1.2 * light.saturation : 1 + light.saturation) * (1 - light.blackAndWhite) * (1 - light.sepia) * (1 - light.toneAmount) * (1 - light.paling);
  return (input) => {
    const y = Math.max(0.03, input);
    const out2 = curve(y);
    const follows = out2 <= y ? out2 / y : Math.min(3, out2 / y) * Math.min(1, Math.sqrt((1.02 - out2) / (1.02 - y)));
    return Math.min(5.9, Math.max(0, strength * follows));
  };
}
function vibranceGain(light) {
  return (colourful) => Math.max(0, 1 + light.vibrance * (1 - clamp(colourful)) ** 2);
}
function chromaShift(light) {
  const curve = toneCurve({ ...light, paling: 0 });
  const [, cb, cr] = ycc(light.toneColour);
  return (input) => {
    const y = curve(input);
    const middle = 4 * y * (1 - y);
    const kept3 = 1 - light.paling;
    return [
      kept3 * middle * (light.sepia * -0.085 + light.toneAmount * cb),
      kept3 * middle * (light.sepia * 0.058 + light.toneAmount * cr)
    ];
  };
}
function balanceMatrix(light) {
  const [r, g, b] = [1 + 0.25 * light.temperature, 1 - 0.15 * light.tint, 1 - 0.25 * light.temperature];
  const grey = KR * r + KG * g + KB * b;
  const gains = [r / grey, g / grey, b / grey];
  const columns2 = [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1]
  ].map(([y, cb, cr]) => {
    const red = y + 2 * (1 - KR) * cr;
    const blue = y + 2 * (1 - KB) * cb;
    const green = (y - KR * red - KB * blue) / KG;
    return fromRgb(red * gains[0], green * gains[1], blue * gains[2]);
  });
  return [0, 1, 2].flatMap((row) => columns2.map((column2) => column2[row]));
}
var KR = 0.2126;
var KB = 0.0722;
var KG = 1 - KR - KB;
function fromRgb(r, g, b) {
  const y = KR * r + KG * g + KB * b;
  return [y, (b - y) / (2 * (1 - KB)), (r - y) / (2 * (1 - KR))];
}
function ycc(colour) {
  const [r, g, b] = [1, 3, 5].map((at3) => Number.parseInt(colour.slice(at3, at3 + 2), 16) / 255);
  return fromRgb(r, g, b);
}

// src/drawing/planes/light-planes.ts
var GAIN_AT = 256;
var VIBRANCE_AT = 768;
var SHIFT_U_AT = 1280;
var SHIFT_V_AT = 1792;
var MATRIX_AT = 2304;
var LIGHT_TABLE_BYTES = 2304 + 18;
var CHROMA_STEPS = 224;
var LUMA_STEPS = 219;
function writeLightTables(kernels, light, to) {
  const view = new DataView(kernels.memory.buffer, to, LIGHT_TABLE_BYTES);
  const [curve, gain, vibrance, shift] = [toneCurve(light), chromaGain(light), vibranceGain(light), chromaShift(light)];
  for (let code = 0; code < 256; code += 1) {
    const y = Math.min(1, Math.max(0, (code - 16) / LUMA_STEPS));
    const [cb, cr] = shift(y);
    view.setUint8(code, Math.round(16 + LUMA_STEPS * curve(y)));
    view.setInt16(GAIN_AT + 2 * code, Math.round(4096 * gain(y)), true);
    view.setInt16(VIBRANCE_AT + 2 * code, Math.round(4096 * vibrance(code / 224)), true);
    view.setInt16(SHIFT_U_AT + 2 * code, Math.round(16 * CHROMA_STEPS * cb), true);
    view.setInt16(SHIFT_V_AT + 2 * code, Math.round(16 * CHROMA_STEPS * cr), true);
  }
  const steps = [LUMA_STEPS, CHROMA_STEPS, CHROMA_STEPS];
  balanceMatrix(light).forEach(
    (value, index) => view.setInt16(
      MATRIX_AT + 2 * index,
      Math.round(4096 * value * steps[Math.floor(index / 3)] / steps[index % 3]),
      true
    )
  );
}
function lightPicture(kernels, from, to, light) {
  const tables = kernels.allocate(LIGHT_TABLE_BYTES);
  writeLightTables(kernels, light, tables);
  kernels.lightPlanes(
    from.y,
    from.u,
    from.v,
    from.yStride,
    from.cStride,
    to.y,
    to.u,
    to.v,
    to.yStride,
    to.cStride,
    from.widthPx,
    from.heightPx,
    tables
  );
  kernels.release(tables);
}

// src/drawing/plates/plate.ts
function keyOf(plate) {
  if (plate.kind === "picture" && !plate.light && !plate.crop)
    return `${plate.assetId} ${plate.size.widthPx}\xD7${plate.size.heightPx}`;
  if (plate.kind === "clip") return `${plate.assetId} ${plate.clipFrame} ${plate.size.widthPx}\xD7${plate.size.heightPx}`;
  return JSON.stringify(plate);
}
function backingPlate(backing) {
  return { kind: "picture", assetId: backing.assetId, crop: null, size: backing.size, light: null };
}
function pictureContentPlate(content, size, isTransparent) {
  if (content.kind === "clip") return { kind: "clip", assetId: content.assetId, size, clipFrame: content.clipFrame };
  return {
    kind: "picture",
    assetId: content.assetId,
    crop: content.crop,
    size,
    light: lightOfPlate(content.light, isTransparent)
  };
}
function lightOfPlate(light, isTransparent) {
  if (!light || !light.moves || isTransparent) return light;
  if (light.sharpen === 0 && !light.print && light.redEyes.length === 0) return null;
  return { ...light, moves: false, values: NEUTRAL };
}
var NEUTRAL = {
  exposure: 0,
  contrast: 0,
  highlights: 0,
  shadows: 0,
  temperature: 0,
  tint: 0,
  saturation: 0,
  vibrance: 0,
  black: 0,
  white: 1,
  blackAndWhite: 0,
  sepia: 0,
  paling: 0,
  toneColour: "#000000",
  toneAmount: 0
};
var WHITE = {
  kind: "painted",
  shape: { kind: "rectangle" },
  fill: { kind: "colour", colour: "#ffffff" },
  bitmap: { widthPx: 4, heightPx: 4 }
};
var ROLL_FADE = {
  kind: "painted",
  shape: { kind: "rectangle" },
  fill: {
    kind: "linear",
    angleDegrees: 90,
    stops: [
      { at: 0, colour: "#ffffff", opacity: 0 },
      { at: 0.12, colour: "#ffffff" },
      { at: 0.88, colour: "#ffffff" },
      { at: 1, colour: "#ffffff", opacity: 0 }
    ]
  },
  bitmap: { widthPx: 16, heightPx: 512 }
};
function platesOf(plan, isTransparent) {
  const frame = { widthPx: plan.widthPx, heightPx: plan.heightPx };
  const plates = [];
  const slides = plan.incoming ? [plan.slide, plan.incoming.slide] : [plan.slide];
  for (const slide3 of slides) {
    const { backing } = slide3;
    if (backing.kind === "blurred") plates.push({ ...backing, frame });
    if (backing.kind === "gradient") plates.push({ kind: "gradient", gradient: backing.gradient, frame });
    if (backing.kind === "picture") plates.push(backingPlate(backing));
    for (const layer of slide3.layers) addLayer(layer);
  }
  for (const layer of plan.over) addLayer(layer);
  const transition = plan.incoming?.transition;
  if (transition?.kind === "map") plates.push({ kind: "wipe-map", look: transition.map, frame });
  return plates;
  function addLayer(layer) {
    addContent(layer.content);
    for (const mask of layer.masks) addLayer(mask.layer);
    if (layer.edge?.stencil) plates.push({ kind: "stencil", look: layer.edge.stencil });
    if (layer.edge?.outline) plates.push({ kind: "outline", look: layer.edge.outline });
    if (layer.vignette > 0) plates.push({ kind: "vignette" });
    if (layer.cuts.length > 0) plates.push(WHITE);
  }
  function addContent(content) {
    switch (content.kind) {
      case "picture":
      case "clip":
        for (const { size } of content.sizes)
          plates.push(pictureContentPlate(content, size, isTransparent(content.assetId)));
        return;
      case "words":
        plates.push({ kind: "words", look: content.look, frame });
        if (content.look.rolls) plates.push(ROLL_FADE);
        return;
      case "painted":
        plates.push({ kind: "painted", shape: content.shape, fill: content.fill, bitmap: content.bitmap });
        return;
      case "group":
        content.layers.forEach(addLayer);
    }
  }
}

// src/drawing/paint/reach.ts
function reachOf2(layer, frame) {
  let reach2 = contentReach(layer, frame);
  if (!reach2) return null;
  const outline = layer.edge?.outline;
  if (outline && outline.where !== "inside") {
    const scale = Math.max(reach2.right - reach2.left, reach2.bottom - reach2.top) / Math.max(1, Math.min(outline.bitmap.widthPx, outline.bitmap.heightPx));
    reach2 = widened(
      reach2,
      outline.width * Math.min(outline.bitmap.widthPx, outline.bitmap.heightPx) * Math.max(1, scale) + 4
    );
  }
  if (layer.blurPx > 0) reach2 = widened(reach2, 3.5 * layer.blurPx + 2);
  const shadow = layer.edge?.shadow;
  if (!shadow) return reach2;
  const soft = 3.5 * shadow.blurPx + 2;
  return {
    left: Math.floor(reach2.left - Math.max(soft, soft - shadow.xPx)),
    top: Math.floor(reach2.top - Math.max(soft, soft - shadow.yPx)),
    right: Math.ceil(reach2.right + Math.max(soft, soft + shadow.xPx)),
    bottom: Math.ceil(reach2.bottom + Math.max(soft, soft + shadow.yPx))
  };
}
function contentReach(layer, frame) {
  const whole2 = { left: 0, top: 0, right: frame.widthPx, bottom: frame.heightPx };
  if (layer.content.kind === "words") return whole2;
  if (layer.content.kind === "group") {
    const parts = layer.content.layers.map((inner) => reachOf2(inner, frame)).filter((rect) => rect !== null);
    return parts.length === 0 ? null : {
      left: Math.min(...parts.map((rect) => rect.left)),
      top: Math.min(...parts.map((rect) => rect.top)),
      right: Math.max(...parts.map((rect) => rect.right)),
      bottom: Math.max(...parts.map((rect) => rect.bottom))
    };
  }
  return layer.plain ? whole2 : boxReach(layer.toScreen);
}
function boxReach(toScreen) {
  const corners = WHOLE_BOX.map((corner) => mapped(toScreen, corner.x, corner.y));
  return corners.every((corner) => corner.w > 0) ? rectAround(corners, 2) : null;
}
function widened(rect, by) {
  return {
    left: Math.floor(rect.left - by),
    top: Math.floor(rect.top - by),
    right: Math.ceil(rect.right + by),
    bottom: Math.ceil(rect.bottom + by)
  };
}

// src/drawing/paint/paint-layer.ts
function paintLayer(easel, target, layer) {
  if (layer.opacity <= 0) return;
  if (!needsCel(layer)) return paintContent(easel, target, layer, layer.opacity);
  const { kernels, cels } = easel;
  const reach2 = reachOf2(layer, easel.frame);
  const rect = reach2 && runRect(reach2, easel.frame);
  if (!rect) return;
  const cel = cels.take();
  clearCel(kernels, cel, rect);
  paintContent(easel, cel, underOutline2(layer), 1);
  if (layer.content.kind === "words" && layer.content.look.rolls) fadeRoll(easel, cel, rect, layer);
  if (layer.vignette > 0) paintVignette(easel, cel, layer);
  if (layer.edge?.stencil) cutByStencil(easel, cel, rect, layer);
  if (layer.edge?.outline) paintOutline(easel, cel, layer);
  for (const mask of layer.masks) {
    const cutter = cels.take();
    clearCel(kernels, cutter, rect);
    if (mask.by !== "transparency" || !paintTransparency(easel, cutter, mask.layer))
      paintLayer(easel, cutter, mask.layer);
    makeMask(kernels, cels, cutter, rect, mask);
    maskCel(kernels, cel, cutter, rect);
    cels.giveBack(cutter);
  }
  if (layer.blurPx > 0) blurCel(kernels, cels, cel, rect, layer.blurPx);
  if (layer.cuts.length > 0) cutCel(easel, cel, rect, layer);
  if (layer.edge?.shadow)
    layShadow(kernels, cels, target, cel, rect, {
      ...layer.edge.shadow,
      opacity: layer.edge.shadow.opacity * layer.opacity
    });
  if (layer.blend === "normal")
    layOver(kernels, target, cel, { ...rect, right: Math.min(rect.right, easel.frame.widthPx) }, layer.opacity);
  else blendOver(kernels, target, cel, rect, layer.opacity, layer.blend);
  cels.giveBack(cel);
}
function underOutline2(layer) {
  const outline = layer.edge?.outline;
  if (!outline || outline.where === "outside" || outline.shape !== null || layer.content.kind === "group") return layer;
  const { widthPx, heightPx } = outline.bitmap;
  const inset = outline.width * Math.min(widthPx, heightPx) / (outline.where === "inside" ? 2 : 4);
  const { left, top, right: right2, bottom: bottom2 } = layer.edge.around;
  const [x, y] = [inset / widthPx * (right2 - left), inset / heightPx * (bottom2 - top)];
  const { crop } = layer;
  return {
    ...layer,
    crop: {
      left: Math.max(crop.left, left + x),
      top: Math.max(crop.top, top + y),
      right: Math.max(crop.right, 1 - right2 + x),
      bottom: Math.max(crop.bottom, 1 - bottom2 + y)
    }
  };
}
function needsCel(layer) {
  const { content } = layer;
  if (layer.blurPx > 0 || layer.blend !== "normal" || layer.masks.length > 0 || layer.edge || layer.vignette > 0)
    return true;
  if (content.kind === "group") return true;
  if (content.kind === "words" && (layer.cuts.length > 0 || content.look.rolls)) return true;
  return (content.kind === "picture" || content.kind === "clip") && content.sizes.length > 1 && layer.opacity < 1;
}
function paintContent(easel, target, layer, opacity) {
  const { content } = layer;
  switch (content.kind) {
    case "picture":
    case "clip":
      content.sizes.forEach(({ size, share }) => {
        const planes = litPlanes(easel, content, size);
        if (planes) paintPicture(easel, target, planes.planes, layer, content, opacity * share);
        planes?.done();
      });
      return;
    case "painted": {
      const made2 = easel.store.made(
        { kind: "painted", shape: content.shape, fill: content.fill, bitmap: content.bitmap },
        "planes"
      );
      if (made2)
        drawQuad(
          easel.kernels,
          target,
          made2.planes,
          layer.toScreen,
          bitmapSamples(made2.planes),
          drawnPart(layer),
          opacity
        );
      return;
    }
    case "words":
      return paintWords(easel, target, layer, content, opacity);
    case "group":
      for (const inner of content.layers) paintLayer(easel, target, inner);
  }
}
function paintTransparency({ kernels, store: store2 }, cel, layer) {
  const { content } = layer;
  if (content.kind !== "painted" || layer.opacity <= 0 || needsCel(layer)) return false;
  const planes = store2.made(
    { kind: "painted", shape: content.shape, fill: content.fill, bitmap: content.bitmap },
    "planes"
  )?.planes;
  if (!planes?.alpha) return false;
  drawQuad(
    kernels,
    transparencyOf(cel),
    transparencyOf(planes),
    layer.toScreen,
    bitmapSamples(planes),
    croppedBox(layer),
    layer.opacity
  );
  return true;
}
function paintPicture({ kernels }, target, planes, layer, content, opacity) {
  if (layer.plain) return drawPicture(kernels, target, planes, content.framing, opacity);
  drawQuad(
    kernels,
    target,
    planes,
    layer.toScreen,
    framingSamples(content.framing, planes),
    framedOutline(content.framing, planes, drawnPart(layer)),
    opacity
  );
}
function litPlanes({ kernels, store: store2 }, content, size) {
  const made2 = store2.made(pictureContentPlate(content, size, store2.isTransparent(content.assetId)), "planes");
  if (!made2) return null;
  const { light } = content;
  if (!light || made2.planes.alpha !== 0 || !light.moves && content.kind === "picture")
    return { planes: made2.planes, done: () => void 0 };
  const lit = allocatePlanes(kernels, made2.planes.widthPx, made2.planes.heightPx, false);
  lightPicture(kernels, made2.planes, lit, light.values);
  padPlanes(kernels, lit);
  return { planes: lit, done: () => releasePlanes(kernels, lit) };
}
function drawnPart(layer) {
  const cropped = croppedBox(layer);
  return layer.cuts.length === 0 ? cropped : cutOnScreen(cropped, layer.toScreen, layer.cuts);
}
function croppedBox({ crop }) {
  if (crop.left === 0 && crop.top === 0 && crop.right === 0 && crop.bottom === 0) return WHOLE_BOX;
  const [left, top, right2, bottom2] = [crop.left, crop.top, 1 - crop.right, 1 - crop.bottom];
  return left < right2 && top < bottom2 ? [
    { x: left, y: top },
    { x: right2, y: top },
    { x: right2, y: bottom2 },
    { x: left, y: bottom2 }
  ] : [];
}
function paintVignette({ kernels, store: store2 }, cel, layer) {
  const made2 = store2.made({ kind: "vignette" }, "planes");
  if (!made2) return;
  const { content } = layer;
  const box2 = croppedBox(layer);
  const outline = content.kind === "picture" || content.kind === "clip" ? framedOutline(
    content.framing,
    { widthPx: content.sizes[0].size.widthPx, heightPx: content.sizes[0].size.heightPx },
    box2
  ) : box2;
  drawQuad(kernels, cel, made2.planes, layer.toScreen, bitmapSamples(made2.planes), outline, layer.vignette);
}
function cutByStencil({ kernels, cels, store: store2 }, cel, rect, layer) {
  const made2 = store2.made({ kind: "stencil", look: layer.edge.stencil }, "planes");
  if (!made2) return;
  const stencil = cels.take();
  clearCel(kernels, stencil, rect);
  drawQuad(kernels, stencil, made2.planes, edgeToScreen(layer), bitmapSamples(made2.planes), WIDE_BOX, 1);
  maskCel(kernels, cel, stencil, rect);
  cels.giveBack(stencil);
}
function fadeRoll({ kernels, cels, store: store2 }, cel, rect, layer) {
  const fade = store2.made(ROLL_FADE, "planes")?.planes;
  if (!fade) return;
  const kept3 = cels.take();
  clearCel(kernels, kept3, rect);
  drawQuad(kernels, kept3, fade, layer.toScreen, bitmapSamples(fade), WHOLE_BOX, 1);
  maskCel(kernels, cel, kept3, rect);
  cels.giveBack(kept3);
}
function cutCel({ kernels, cels, store: store2, frame }, cel, rect, layer) {
  const white2 = store2.made(WHITE, "planes")?.planes;
  if (!white2) return;
  const kept3 = cels.take();
  clearCel(kernels, kept3, rect);
  const toScreen = [frame.widthPx, 0, 0, 0, frame.heightPx, 0, 0, 0, 1];
  drawQuad(kernels, kept3, white2, toScreen, bitmapSamples(white2), cutOnScreen(WIDE_BOX, toScreen, layer.cuts), 1);
  maskCel(kernels, cel, kept3, rect);
  cels.giveBack(kept3);
}
function edgeToScreen(layer) {
  const { left, top, right: right2, bottom: bottom2 } = layer.edge.around;
  return times3(layer.toScreen, [right2 - left, 0, left, 0, bottom2 - top, top, 0, 0, 1]);
}
var WIDE_BOX = [
  { x: -0.02, y: -0.02 },
  { x: 1.02, y: -0.02 },
  { x: 1.02, y: 1.02 },
  { x: -0.02, y: 1.02 }
];
function paintOutline({ kernels, store: store2 }, cel, layer) {
  const made2 = store2.made({ kind: "outline", look: layer.edge.outline }, "outline");
  if (!made2) return;
  const { marginX, marginY, planes } = made2;
  const toWideBox = [1 + 2 * marginX, 0, -marginX, 0, 1 + 2 * marginY, -marginY, 0, 0, 1];
  drawQuad(kernels, cel, planes, times3(edgeToScreen(layer), toWideBox), bitmapSamples(planes), WHOLE_BOX, 1);
}
function paintWords(easel, target, layer, content, opacity) {
  const { kernels, cels, store: store2, frame } = easel;
  const plate = { kind: "words", look: content.look, frame };
  const words2 = store2.made(plate, "words");
  if (!words2) return;
  const { passage } = content;
  const count = (by) => by === "all" ? 1 : words2.counts[by];
  const shift = travelOf(passage.travel, words2.block, frame);
  const toFrame = layer.plain ? null : times3(layer.toScreen, [1 / frame.widthPx, 0, 0, 0, 1 / frame.heightPx, 0, 0, 0, 1]);
  for (const piece of words2.pieces) {
    let drawPiece3 = function(onto, strength = opacity * state.opacity) {
      const { planes } = piece;
      const box2 = [
        planes.widthPx,
        0,
        piece.leftPx + shift.x,
        0,
        planes.heightPx,
        piece.topPx + shift.y + state.down * piece.sizePx,
        0,
        0,
        1
      ];
      const outline = state.shown === 1 ? WHOLE_BOX : piece.rightToLeft ? croppedBox({ crop: { left: 1 - state.shown, top: 0, right: 0, bottom: 0 } }) : croppedBox({ crop: { left: 0, top: 0, right: 1 - state.shown, bottom: 0 } });
      drawQuad(
        kernels,
        onto,
        planes,
        toFrame ? times3(toFrame, box2) : box2,
        bitmapSamples(planes),
        cutPolygon(outline, WHOLE_BOX),
        strength
      );
    };
    var drawPiece2 = drawPiece3;
    const of = (by) => by === "all" || piece.line < 0 ? { index: 0, count: piece.line < 0 ? 1 : count(by) } : { index: piece[by], count: count(by) };
    const state = pieceState(passage, of(passage.entrance.by), of(passage.exit.by));
    if (state.opacity <= 0 || state.shown <= 0) continue;
    const still = state.down === 0 && state.shown === 1 && state.blur === 0 && shift.x === 0 && shift.y === 0;
    if (!toFrame && still) {
      const rect2 = {
        left: piece.leftPx,
        top: piece.topPx,
        right: piece.leftPx + piece.planes.widthPx,
        bottom: piece.topPx + piece.planes.heightPx
      };
      if (rect2.left < 0 || rect2.top < 0 || rect2.right > frame.widthPx || rect2.bottom > frame.heightPx)
        drawPiece3(target);
      else layPiece(kernels, target, piece.planes, rect2, opacity * state.opacity);
      continue;
    }
    if (state.blur <= 0) {
      drawPiece3(target);
      continue;
    }
    const sigma = state.blur * piece.sizePx;
    const rect = runRect(
      {
        left: piece.leftPx + shift.x - 4 * sigma,
        top: piece.topPx + shift.y - 4 * sigma,
        right: piece.leftPx + shift.x + piece.planes.widthPx + 4 * sigma,
        bottom: piece.topPx + shift.y + piece.planes.heightPx + 4 * sigma
      },
      frame
    );
    const whole2 = toFrame ? runRect({ left: 0, top: 0, right: frame.widthPx, bottom: frame.heightPx }, frame) : rect;
    if (!whole2) continue;
    const cel = cels.take();
    clearCel(kernels, cel, whole2);
    drawPiece3(cel, 1);
    blurCel(kernels, cels, cel, whole2, sigma);
    layOver(kernels, target, cel, { ...whole2, right: Math.min(whole2.right, frame.widthPx) }, opacity * state.opacity);
    cels.giveBack(cel);
  }
}
function travelOf(travel, block, frame) {
  if (!travel) return { x: 0, y: 0 };
  if (travel.kind === "roll")
    return { x: 0, y: frame.heightPx - block.topPx - travel.share * (frame.heightPx + block.heightPx) };
  return { x: frame.widthPx - block.leftPx - travel.share * (frame.widthPx + block.widthPx), y: 0 };
}
function layPiece(kernels, target, planes, rect, opacity) {
  const share = Math.round(Math.min(1, Math.max(0, opacity)) * 32767);
  const at3 = (plane2) => plane2 + rect.top * target.yStride + rect.left;
  const half = (plane2) => plane2 + rect.top / 2 * target.cStride + rect.left / 2;
  const [w, h] = [planes.widthPx, planes.heightPx];
  kernels.coverPlane(at3(target.y), target.yStride, planes.y, planes.alpha, planes.yStride, w, h, share);
  kernels.coverPlane(half(target.u), target.cStride, planes.u, planes.halfAlpha, planes.cStride, w / 2, h / 2, share);
  kernels.coverPlane(half(target.v), target.cStride, planes.v, planes.halfAlpha, planes.cStride, w / 2, h / 2, share);
  if (target.alpha === 0) return;
  kernels.coverPlane(at3(target.alpha), target.yStride, planes.alpha, planes.alpha, planes.yStride, w, h, share);
  kernels.coverPlane(
    half(target.halfAlpha),
    target.cStride,
    planes.halfAlpha,
    planes.halfAlpha,
    planes.cStride,
    w / 2,
    h / 2,
    share
  );
}

// src/drawing/paint/perform-transition.ts
var BEHIND_BLUR = 0.05;
var BEHIND_EXPOSURE = -1.1;
var PAGE = "#efe9dc";
function performTransition(easel, frames, transition, progress) {
  const { kernels } = easel;
  const { leaving, coming: coming2, out: out2 } = frames;
  if (progress <= 0) return leaving;
  if (progress >= 1) return coming2;
  switch (transition.kind) {
    case "dissolve":
      return mixed2(kernels, leaving, coming2, progress);
    case "dip": {
      fillSurface(kernels, out2, transition.colour);
      return progress < 0.5 ? mixed2(kernels, leaving, out2, 2 * progress) : mixed2(kernels, out2, coming2, 2 * progress - 1);
    }
    case "burn":
      return burn2(kernels, frames, transition.colour, progress);
    case "map":
      return wipe2(easel, frames, transition, progress);
    case "push":
    case "slide-over":
    case "slide-off":
      return slide2(kernels, frames, transition.kind, transition.direction, progress);
    case "slide-apart":
      return apart(kernels, frames, transition.direction, progress);
    case "zoom-through":
      return zoomThrough2(kernels, frames, transition.direction, progress);
    case "zoom-blur":
      return zoomBlur2(kernels, frames, transition.direction, progress);
    case "page-turn":
      return pageTurn2(kernels, frames, transition.direction, progress);
    case "card-turn":
      return cardTurn2(easel, frames, transition.direction, progress);
    case "cube-turn":
      return cubeTurn2(easel, frames, transition.direction, progress);
    case "blur-through":
      return blurThrough2(easel, frames, progress);
    case "mosaic":
      return mosaic2(kernels, frames, transition.count, progress);
    default:
      return unreachable(transition);
  }
}
function mixed2(kernels, a, b, share) {
  kernels.mixRow(a.block, a.block, b.block, a.byteCount, q15(share));
  return a;
}
function burn2(kernels, { leaving, coming: coming2, out: out2 }, colour, progress) {
  const [from, glow] = progress < 0.5 ? [leaving, 2 * progress] : [coming2, 2 - 2 * progress];
  lightPicture(kernels, from, from, { ...NEUTRAL, exposure: 3 * glow, saturation: 0.3 * glow });
  fillSurface(kernels, out2, colour);
  return mixed2(kernels, from, out2, glow ** 2.2);
}
function wipe2({ kernels, store: store2, frame }, { leaving, coming: coming2 }, { map, softness }, progress) {
  const made2 = store2.made(
    { kind: "wipe-map", look: map, frame: { widthPx: frame.widthPx, heightPx: frame.heightPx } },
    "wipe-map"
  );
  if (!made2) return mixed2(kernels, leaving, coming2, progress);
  const border = Math.max(1, Math.round(softness * 32767));
  const moment = Math.round(progress * (32767 + border));
  const [w, h] = [frame.widthPx, frame.heightPx];
  kernels.mixByMap(leaving.y, leaving.y, coming2.y, leaving.yStride, made2.map, made2.stride, w, h, moment, border);
  kernels.mixByMap(
    leaving.u,
    leaving.u,
    coming2.u,
    leaving.cStride,
    made2.half,
    made2.halfStride,
    w / 2,
    h / 2,
    moment,
    border
  );
  kernels.mixByMap(
    leaving.v,
    leaving.v,
    coming2.v,
    leaving.cStride,
    made2.half,
    made2.halfStride,
    w / 2,
    h / 2,
    moment,
    border
  );
  return leaving;
}
var WHOLE5 = { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 };
var WAY = {
  left: [-1, 0],
  right: [1, 0],
  up: [0, -1],
  down: [0, 1]
};
function moved(x, y, scale = 1) {
  return { ...WHOLE5, x: 0.5 - x / scale, y: 0.5 - y / scale, width: 1 / scale, height: 1 / scale };
}
function everywhere(surface) {
  return { left: 0, top: 0, right: surface.widthPx, bottom: surface.heightPx };
}
function slide2(kernels, { leaving, coming: coming2, out: out2 }, kind, direction2, progress) {
  const [dx, dy] = WAY[direction2];
  padPlanes(kernels, leaving);
  padPlanes(kernels, coming2);
  if (kind === "slide-off") {
    drawFramed(kernels, coming2, leaving, moved(dx * progress, dy * progress), 1);
    return coming2;
  }
  const came = moved(dx * (progress - 1), dy * (progress - 1));
  if (kind === "slide-over") {
    drawFramed(kernels, leaving, coming2, came, 1);
    return leaving;
  }
  drawFramed(kernels, out2, leaving, moved(dx * progress, dy * progress), 1, everywhere(out2));
  drawFramed(kernels, out2, coming2, came, 1);
  return out2;
}
function apart(kernels, { leaving, coming: coming2 }, direction2, progress) {
  padPlanes(kernels, leaving);
  const [w, h] = [leaving.widthPx, leaving.heightPx];
  const across = direction2 === "across";
  const by = progress / 2;
  const [firstEnd, secondStart] = across ? [w * (0.5 - by), w * (0.5 + by)] : [h * (0.5 - by), h * (0.5 + by)];
  drawFramed(kernels, coming2, leaving, across ? moved(-by, 0) : moved(0, -by), 1, {
    ...everywhere(leaving),
    ...across ? { right: firstEnd } : { bottom: firstEnd }
  });
  drawFramed(kernels, coming2, leaving, across ? moved(by, 0) : moved(0, by), 1, {
    ...everywhere(leaving),
    ...across ? { left: secondStart } : { top: secondStart }
  });
  return coming2;
}
function zoomThrough2(kernels, { leaving, coming: coming2, out: out2 }, direction2, progress) {
  padPlanes(kernels, leaving);
  padPlanes(kernels, coming2);
  const inwards = direction2 === "in";
  const share = inwards ? progress : 1 - progress;
  const [far, near] = inwards ? [coming2, leaving] : [leaving, coming2];
  const smooth2 = (low, high, value) => {
    const t = Math.min(1, Math.max(0, (value - low) / (high - low)));
    return t * t * (3 - 2 * t);
  };
  drawFramed(kernels, out2, near, moved(0, 0, 3 ** share), 1, everywhere(out2));
  drawFramed(kernels, out2, far, moved(0, 0, 0.28 ** (1 - share)), smooth2(0.05, 0.6, share));
  return out2;
}
var ZOOM_DOUBLINGS = 3;
function zoomBlur2(kernels, { leaving, coming: coming2, out: out2 }, direction2, progress) {
  const share = Math.min(1, Math.max(0, (progress - 0.38) / 0.24));
  const smear = 1 + 0.42 * Math.sin(Math.PI * progress) ** 2;
  const [leavingGrown, comingGrown] = direction2 === "in" ? [1 + 0.5 * progress ** 2, 1] : [1, 1 + 0.5 * (1 - progress) ** 2];
  padPlanes(kernels, leaving);
  padPlanes(kernels, coming2);
  if (share < 1) drawFramed(kernels, out2, leaving, moved(0, 0, leavingGrown), 1, everywhere(out2));
  if (share > 0) drawFramed(kernels, out2, coming2, moved(0, 0, comingGrown), share, everywhere(out2));
  const step2 = smear ** (1 / (2 ** ZOOM_DOUBLINGS - 1));
  let [from, to] = [out2, leaving];
  for (let doubling = 0; doubling < ZOOM_DOUBLINGS; doubling += 1) {
    padPlanes(kernels, from);
    copySurface(kernels, to, from);
    drawFramed(kernels, to, from, moved(0, 0, step2 ** 2 ** doubling), 0.5, everywhere(to));
    [from, to] = [to, from];
  }
  return from;
}
function pageTurn2(kernels, { leaving, coming: coming2, out: out2 }, direction2, progress) {
  padPlanes(kernels, leaving);
  const [wayX, wayY] = WAY[direction2];
  const slant = 0.22;
  const length = Math.hypot(1, slant);
  const [dirX, dirY] = [(-wayX + slant * -wayY) / length, (-wayY + slant * Math.abs(wayX)) / length];
  const [w, h] = [leaving.widthPx, leaving.heightPx];
  const reaches = [
    [0, 0],
    [w, 0],
    [0, h],
    [w, h]
  ].map(([x, y]) => x * dirX + y * dirY);
  const radius = 0.09 * (wayX !== 0 ? w : h);
  const [first, last] = [Math.max(...reaches), Math.min(...reaches) - radius];
  const fold = first + (last - first) * progress;
  const paper2 = ycbcrOf(PAGE);
  kernels.turnPagePlane(leaving.y, coming2.y, out2.y, leaving.yStride, w, h, dirX, dirY, fold, radius, 16, paper2.y);
  for (const [a, b, to, back] of [
    [leaving.u, coming2.u, out2.u, paper2.u],
    [leaving.v, coming2.v, out2.v, paper2.v]
  ]) {
    kernels.turnPagePlane(a, b, to, leaving.cStride, w / 2, h / 2, dirX, dirY, fold / 2, radius / 2, 128, back);
  }
  return out2;
}
function plane(surface, moves) {
  const [w, h] = [surface.widthPx, surface.heightPx];
  return times4(translation(w / 2, h / 2, 0), times4(moves, times4(scaling(w, h, 1), translation(-0.5, -0.5, 0))));
}
function eyeOf(surface) {
  return { x: surface.widthPx / 2, y: surface.heightPx / 2, distance: 2.2 * surface.heightPx };
}
function drawPlane(kernels, out2, from, box2) {
  padPlanes(kernels, from);
  drawQuad(kernels, out2, from, projected(box2, eyeOf(out2)), bitmapSamples(from), WHOLE_BOX, 1);
}
function turnedBy(direction2, degrees) {
  if (direction2 === "left") return rotation(0, 0, degrees);
  if (direction2 === "right") return rotation(0, 0, -degrees);
  return direction2 === "up" ? rotation(0, degrees, 0) : rotation(0, -degrees, 0);
}
function layBehind({ kernels, cels }, { leaving, coming: coming2, out: out2 }, progress) {
  copySurface(kernels, out2, leaving);
  mixed2(kernels, out2, coming2, progress);
  blurCel(kernels, cels, out2, everywhere(out2), BEHIND_BLUR * out2.heightPx);
  lightPicture(kernels, out2, out2, { ...NEUTRAL, exposure: BEHIND_EXPOSURE });
}
function cardTurn2(easel, frames, direction2, progress) {
  const { kernels } = easel;
  const { leaving, coming: coming2, out: out2 } = frames;
  layBehind(easel, frames, progress);
  const back = translation(0, 0, -0.55 * out2.heightPx * Math.sin(Math.PI * progress));
  const [shown, degrees] = progress < 0.5 ? [leaving, 180 * progress] : [coming2, 180 * progress - 180];
  drawPlane(kernels, out2, shown, plane(out2, times4(back, turnedBy(direction2, degrees))));
  return out2;
}
function cubeTurn2(easel, frames, direction2, progress) {
  const { kernels } = easel;
  const { leaving, coming: coming2, out: out2 } = frames;
  layBehind(easel, frames, progress);
  const across = direction2 === "left" || direction2 === "right";
  const half = (across ? out2.widthPx : out2.heightPx) / 2;
  const back = translation(0, 0, -half - 0.35 * out2.heightPx * Math.sin(Math.PI * progress));
  const face = (degrees) => plane(out2, times4(back, times4(turnedBy(direction2, degrees), translation(0, 0, half))));
  const eye = eyeOf(out2);
  for (const [from, box2] of [
    [leaving, face(-90 * progress)],
    [coming2, face(90 - 90 * progress)]
  ])
    if (facesEye(box2, eye)) drawPlane(kernels, out2, from, box2);
  return out2;
}
function blurThrough2({ kernels, cels }, { leaving, coming: coming2 }, progress) {
  const sigma = 0.045 * leaving.heightPx * Math.sin(Math.PI * progress) ** 1.5;
  const share = Math.min(1, Math.max(0, (progress - 0.3) / 0.4));
  const rect = { left: 0, top: 0, right: leaving.widthPx, bottom: leaving.heightPx };
  if (share < 1) blurCel(kernels, cels, leaving, rect, sigma);
  if (share <= 0) return leaving;
  blurCel(kernels, cels, coming2, rect, sigma);
  return share >= 1 ? coming2 : mixed2(kernels, leaving, coming2, share);
}
function mosaic2(kernels, { leaving, coming: coming2, out: out2 }, count, progress) {
  const share = Math.min(1, Math.max(0, (progress - 0.42) / 0.16));
  const from = share <= 0 ? leaving : share >= 1 ? coming2 : mixed2(kernels, leaving, coming2, share);
  const side = (leaving.widthPx / count) ** Math.sin(Math.PI * progress);
  if (side < 1.5) return from;
  kernels.mosaicPlane(from.y, out2.y, out2.yStride, out2.widthPx, out2.heightPx, side, side);
  for (const [a, to] of [
    [from.u, out2.u],
    [from.v, out2.v]
  ])
    kernels.mosaicPlane(a, to, out2.cStride, out2.widthPx / 2, out2.heightPx / 2, side / 2, side / 2);
  return out2;
}

// src/drawing/paint/paint-frame.ts
var MISSING_COLOUR = "#262422";
function createPainter(kernels, widthPx, heightPx) {
  const leaving = createSurface(kernels, widthPx, heightPx);
  const coming2 = createSurface(kernels, widthPx, heightPx);
  const out2 = createSurface(kernels, widthPx, heightPx);
  const cels = createCels(kernels, widthPx, heightPx);
  return {
    paint(plan, store2) {
      if (plan.widthPx !== widthPx || plan.heightPx !== heightPx)
        throw new RangeError(
          `this painter draws ${widthPx} \xD7 ${heightPx}, got a plan for ${plan.widthPx} \xD7 ${plan.heightPx}`
        );
      const easel = { kernels, cels, store: store2, frame: { widthPx, heightPx } };
      const painted = paintSlides(easel, plan);
      for (const layer of plan.over) paintLayer(easel, painted, layer);
      return painted;
    },
    close() {
      for (const surface of [leaving, coming2, out2]) releaseSurface(kernels, surface);
      cels.close();
    }
  };
  function paintSlides(easel, { slide: slide3, incoming }) {
    paintSlide(easel, leaving, slide3);
    if (!incoming) return leaving;
    paintSlide(easel, coming2, incoming.slide);
    return performTransition(easel, { leaving, coming: coming2, out: out2 }, incoming.transition, incoming.progress);
  }
}
function paintSlide(easel, surface, slide3) {
  paintBacking(easel, surface, slide3);
  for (const layer of slide3.layers) paintLayer(easel, surface, layer);
}
function paintBacking({ kernels, store: store2, frame }, surface, slide3) {
  const { backing } = slide3;
  const size = { widthPx: frame.widthPx, heightPx: frame.heightPx };
  if (backing.kind === "colour") return fillSurface(kernels, surface, backing.colour);
  if (backing.kind === "hidden") {
    const content = slide3.layers[0]?.content;
    if (content?.kind !== "picture" && content?.kind !== "clip") return;
    if (!store2.made(pictureContentPlate(content, content.sizes[0].size, store2.isTransparent(content.assetId)), "planes"))
      fillSurface(kernels, surface, MISSING_COLOUR);
    return;
  }
  if (backing.kind === "picture") {
    fillSurface(kernels, surface, MISSING_COLOUR);
    const made3 = store2.made(backingPlate(backing), "planes");
    if (made3) drawPicture(kernels, surface, made3.planes, backing.framing, 1);
    return;
  }
  const made2 = store2.made(
    backing.kind === "gradient" ? { kind: "gradient", gradient: backing.gradient, frame: size } : { ...backing, frame: size },
    "planes"
  );
  if (made2) copySurface(kernels, surface, made2.planes);
  else fillSurface(kernels, surface, MISSING_COLOUR);
}

// src/server/paths.ts
import path from "node:path";
var projectFolder = () => process.env.TANAGER_HOME ?? process.cwd();
var kernelsFile = () => path.join(projectFolder(), "public", "drawing", "kernels.wasm");
var fontFile = (name) => path.join(projectFolder(), "public", "fonts", `${name}.ttf`);
var toneTableFile = (hdr) => path.join(projectFolder(), "dist", `tone-${hdr}.cube`);
var fontIndexFile = () => path.join(projectFolder(), "public", "fonts", "index.json");

// src/server/ffmpeg/run-ffmpeg.ts
import { spawn, spawnSync } from "node:child_process";
var FFMPEG = () => process.env.TANAGER_FFMPEG ?? "ffmpeg";
var FFPROBE = () => process.env.TANAGER_FFPROBE ?? "ffprobe";
var GUARDED_INPUT = [
  "-protocol_whitelist",
  "file,pipe",
  "-format_whitelist",
  "mov,matroska,avi,mp3,wav,flac,ogg,aac"
];
var FfmpegError = class extends Error {
  constructor(message, details, options) {
    super(message, options);
    this.details = details;
  }
  name = "FfmpegError";
};
function startFfmpeg(args, signal) {
  return start(FFMPEG(), ["-hide_banner", "-nostdin", "-loglevel", "error", ...args], signal);
}
async function probe(file) {
  const parsed2 = await asked("-show_streams", "-show_format", file);
  return { streams: parsed2.streams ?? [], format: parsed2.format ?? {} };
}
async function countPackets(file) {
  const parsed2 = await asked(
    "-count_packets",
    "-select_streams",
    "v:0",
    "-show_entries",
    "stream=nb_read_packets",
    file
  );
  return Number(parsed2.streams?.[0]?.nb_read_packets ?? 0);
}
var PROBE_MS = 3e4;
var LONGEST_PROBE = 16 * 1024 * 1024;
async function asked(...args) {
  const ended = new AbortController();
  const running = start(FFPROBE(), ["-v", "error", ...GUARDED_INPUT, "-of", "json", ...args], ended.signal);
  const timer = setTimeout(
    () => ended.abort(new FfmpegError("ffprobe took too long over a file.", "it was ended")),
    PROBE_MS
  );
  let text2 = "";
  running.process.stdout.setEncoding("utf8").on("data", (chunk) => {
    text2 += chunk;
    if (text2.length > LONGEST_PROBE) ended.abort(new FfmpegError("ffprobe found too much in a file.", "it was ended"));
  });
  running.process.stdin.end();
  try {
    await running.finished;
  } finally {
    clearTimeout(timer);
  }
  return JSON.parse(text2);
}
var NOT_FOUND = 127;
var canFollow = null;
function withParent(command) {
  canFollow ??= spawnSync("setpriv", ["--pdeathsig", "KILL", "true"]).status === 0;
  return canFollow ? ["setpriv", "--pdeathsig", "KILL", ...command] : command;
}
function start(command, args, signal) {
  signal?.throwIfAborted();
  const [program, ...all] = withParent([command, ...args]);
  const child = spawn(program, all, { stdio: ["pipe", "pipe", "pipe"] });
  let said = "";
  child.stderr.setEncoding("utf8").on("data", (chunk) => {
    said = (said + chunk).slice(-8e3);
  });
  child.stdin.on("error", () => {
  });
  const stop = () => child.kill("SIGKILL");
  signal?.addEventListener("abort", stop, { once: true });
  const finished = new Promise((resolve, reject) => {
    const missing = `ffmpeg is needed for sound, clips and films, and \u201C${command}\u201D was not found. Install it (on Debian: apt-get install ffmpeg) or name it in TANAGER_FFMPEG.`;
    child.on("error", (cause) => {
      const message = cause.code === "ENOENT" ? missing : `ffmpeg could not be started: ${cause.message}`;
      reject(new FfmpegError(message, "", { cause }));
    });
    child.on("close", (code) => {
      signal?.removeEventListener("abort", stop);
      if (signal?.aborted) reject(signal.reason);
      else if (code === 0) resolve(said);
      else if (code === NOT_FOUND && said.includes("failed to execute")) reject(new FfmpegError(missing, ""));
      else reject(new FfmpegError("ffmpeg could not finish its work.", said.trim()));
    });
  });
  finished.catch(() => {
  });
  return { process: child, finished };
}

// src/server/ffmpeg/read-exactly.ts
function exactReader(stream) {
  const iterator = stream[Symbol.asyncIterator]();
  let waiting = [];
  let waitingBytes = 0;
  let ended = false;
  return {
    async read(byteCount) {
      while (waitingBytes < byteCount && !ended) {
        const next = await iterator.next();
        if (next.done) ended = true;
        else {
          waiting.push(next.value);
          waitingBytes += next.value.length;
        }
      }
      const all = waiting.length === 1 ? waiting[0] : Buffer.concat(waiting);
      const piece = all.subarray(0, byteCount);
      const rest = all.subarray(piece.length);
      waiting = rest.length > 0 ? [rest] : [];
      waitingBytes = rest.length;
      return piece;
    }
  };
}

// src/server/assets/clip-frames.ts
var LONGEST_SKIP = 90;
function openClip(file, widthPx, heightPx, hdr) {
  const byteCount = widthPx * heightPx + 2 * (widthPx + 1 >> 1) * (heightPx + 1 >> 1);
  let running = null;
  let reader = null;
  let next = 0;
  let enteredSecond = 0;
  let last = null;
  return {
    async frame(index) {
      if (last?.index === index) return last.frame;
      if (!reader || index < next || index > next + LONGEST_SKIP) startAt(Math.floor(index / CLIP_FRAMES_PER_SECOND));
      let stepBack = 1;
      while (next <= index) {
        const i420 = await reader.read(byteCount);
        if (i420.length === byteCount) {
          last = { index: next, frame: { widthPx, heightPx, i420 } };
          next += 1;
        } else if (last) {
          last = { index, frame: last.frame };
          next = index + 1;
        } else if (enteredSecond > 0) {
          startAt(Math.max(0, enteredSecond - stepBack));
          stepBack *= 2;
        } else throw new Error("the clip holds no frame that can be read");
      }
      return last.frame;
    },
    close: stop
  };
  function startAt(second) {
    stop();
    last = null;
    enteredSecond = second;
    next = second * CLIP_FRAMES_PER_SECOND;
    running = startFfmpeg([
      ...second > 1 ? ["-ss", String(second - 1)] : [],
      ...GUARDED_INPUT,
      "-copyts",
      "-start_at_zero",
      "-threads",
      "1",
      "-i",
      file,
      "-map",
      "0:v:0",
      "-vf",
      clipFilter({ widthPx, heightPx, hdr }, second),
      "-fps_mode",
      "passthrough",
      "-pix_fmt",
      "yuv420p",
      "-f",
      "rawvideo",
      "-"
    ]);
    running.process.stdin.end();
    reader = exactReader(running.process.stdout);
  }
  function stop() {
    running?.process.kill("SIGKILL");
    running = null;
    reader = null;
  }
}
function clipFilter({ widthPx, heightPx, hdr }, fromSecond, colours = "drawing") {
  const matrix = colours === "drawing" ? "out_color_matrix=bt709:out_range=tv" : "out_color_matrix=bt601:out_range=pc";
  const steady2 = `fps=${CLIP_FRAMES_PER_SECOND}:start_time=${fromSecond},scale=${widthPx}:${heightPx}:flags=bicubic`;
  if (!hdr) return `${steady2}:${matrix},setsar=1`;
  const toned = `lut3d=file=${escaped(toneTableFile(hdr))}:interp=tetrahedral`;
  return `${steady2}:in_color_matrix=bt2020,format=gbrp12le,${toned},scale=flags=bicubic:${matrix},setsar=1`;
}
function escaped(file) {
  return file.replace(/[\\':]/g, "\\$&").replace(/[\\'[\],;]/g, "\\$&");
}

// src/server/assets/look-at-picture.ts
import { stat as stat3 } from "node:fs/promises";
import exifr from "exifr";
import sharp3 from "sharp";

// src/core/light/histogram.ts
var LEFT_OUT = 5e-3;
function tonePoints(histogram) {
  const total = histogram.reduce((sum, count) => sum + count, 0);
  const edge = (order2) => {
    let passed = 0;
    for (const index of order2) {
      passed += histogram[index];
      if (passed > LEFT_OUT * total) return index / (histogram.length - 1);
    }
    return order2[0] / (histogram.length - 1);
  };
  const rising = histogram.map((_, index) => index);
  const [black, white2] = [edge(rising), edge([...rising].reverse())];
  const missing = Math.max(0, 0.2 - (white2 - black));
  return { black: Math.max(0, black - missing / 2), white: Math.min(1, white2 + missing / 2) };
}

// src/core/light/dark-bars.ts
var DARKEST = 40;
var EVENNESS = 12;
var STRAYING = 0.015;
var INSIDE = 0.3;
var BRIGHTER = 14;
var NARROWEST = 0.012;
var WIDEST = 0.42;
function darkBars(grey, widthPx, heightPx) {
  const row = (index) => Array.from({ length: widthPx }, (_, at3) => grey[index * widthPx + at3]);
  const down = barsOf(row, heightPx);
  const [topLines, bottomLines] = [Math.round(down.first * heightPx), Math.round(down.last * heightPx)];
  const column2 = (index) => Array.from({ length: heightPx - topLines - bottomLines }, (_, at3) => grey[(topLines + at3) * widthPx + index]);
  const across = barsOf(column2, widthPx);
  const sides = { left: across.first, right: across.last, top: down.first, bottom: down.last };
  return sides.left + sides.right + sides.top + sides.bottom > 0 ? sides : null;
}
function barsOf(line, count) {
  const first = barFrom((step2) => line(step2), count);
  const last = barFrom((step2) => line(count - 1 - step2), count);
  const share = (bar) => bar ? Math.min(WIDEST, bar.lines / count) : 0;
  if (first && last) return { first: share(first), last: share(last) };
  const only2 = first ?? last;
  if (!only2 || only2.brightness > 6) return { first: 0, last: 0 };
  return { first: share(first), last: share(last) };
}
function barFrom(line, count) {
  const brightness = median(line(0));
  if (brightness > DARKEST) return null;
  const most = Math.floor(count * WIDEST);
  let lines2 = 0;
  while (lines2 <= most && isEven(line(lines2), brightness)) lines2 += 1;
  if (lines2 < Math.max(2, count * NARROWEST) || lines2 > most) return null;
  const next = line(lines2 + 1);
  const brighter = next.filter((value) => value > brightness + BRIGHTER).length;
  return brighter < INSIDE * next.length ? null : { lines: lines2 + 1, brightness };
}
function isEven(values, brightness) {
  let straying = 0;
  for (const value of values) if (Math.abs(value - brightness) > EVENNESS) straying += 1;
  return straying <= STRAYING * values.length;
}
function median(values) {
  return [...values].sort((a, b) => a - b)[values.length >> 1];
}

// src/core/light/likeness.ts
var SIDE = 16;
function likenessOf(grey, side) {
  const step2 = side / SIDE;
  const cells2 = Array.from({ length: SIDE * SIDE }, (_, cell) => {
    let sum = 0;
    for (let y = 0; y < step2; y += 1)
      for (let x = 0; x < step2; x += 1)
        sum += grey[(Math.floor(cell / SIDE) * step2 + y) * side + cell % SIDE * step2 + x];
    return sum / (step2 * step2);
  });
  if (Math.max(...cells2) - Math.min(...cells2) < 12) return null;
  let text2 = "";
  for (let at3 = 0; at3 < cells2.length; at3 += 4) {
    let digit = 0;
    for (let bit = 0; bit < 4; bit += 1) {
      const cell = at3 + bit;
      const right2 = cell % SIDE === SIDE - 1 ? cell - SIDE + 1 : cell + 1;
      digit = digit * 2 + (cells2[cell] > cells2[right2] + 0.5 ? 1 : 0);
    }
    text2 += digit.toString(16);
  }
  return text2;
}

// src/server/assets/open-picture.ts
import { existsSync } from "node:fs";
import { open, readFile as readFile3, rename, stat as stat2, writeFile } from "node:fs/promises";
import sharp2 from "sharp";

// src/server/blobs/decoded-copy.ts
var decodedCopy = (file) => `${file}${ENDING}`;
var ENDING = ".decoded";

// src/server/assets/decode-heic.ts
import { readFile } from "node:fs/promises";
import decode from "heic-decode";
import sharp from "sharp";
var LARGEST_BYTES = 200 * 1024 * 1024;
async function decodeHeic(file) {
  const bytes = await readFile(file);
  if (bytes.length > LARGEST_BYTES) throw new RangeError("a HEIC picture can be 200 MB at most");
  const { icc } = await sharp(bytes).metadata().catch(() => ({ icc: void 0 }));
  const decoded2 = await decode({ buffer: bytes });
  const jpeg = await sharp(decoded2.data, { raw: { width: decoded2.width, height: decoded2.height, channels: 4 } }).flatten().jpeg({ quality: 97, chromaSubsampling: "4:4:4" }).toBuffer();
  return icc ? withProfile(jpeg, icc) : jpeg;
}
function withProfile(jpeg, icc) {
  const most = 65519;
  const count = Math.ceil(icc.length / most);
  const pieces = Array.from({ length: count }, (_, index) => {
    const part = icc.subarray(index * most, (index + 1) * most);
    const head = Buffer.concat([
      Buffer.from([255, 226, 0, 0]),
      Buffer.from("ICC_PROFILE\0", "latin1"),
      Buffer.from([index + 1, count])
    ]);
    head.writeUInt16BE(head.length - 2 + part.length, 2);
    return Buffer.concat([head, part]);
  });
  return Buffer.concat([jpeg.subarray(0, 2), ...pieces, jpeg.subarray(2)]);
}

// src/server/assets/raw-preview.ts
import { readFile as readFile2, stat } from "node:fs/promises";

// src/server/assets/unusable-file-error.ts
var UnusableFileError = class extends Error {
  name = "UnusableFileError";
};

// src/server/assets/raw-preview.ts
var LARGEST_BYTES2 = 300 * 1024 * 1024;
var LEAST_SIDE_PX = 1e3;
var TAG = {
  description: 270,
  make: 271,
  model: 272,
  orientation: 274,
  photometric: 262,
  compression: 259,
  subIfds: 330,
  exifIfd: 34665,
  takenAt: 36867,
  focalLength: 37386,
  dngVersion: 50706
};
var SENSOR_PHOTOMETRIC = /* @__PURE__ */ new Set([32803, 34892]);
var SENSOR_COMPRESSION = /* @__PURE__ */ new Set([32767, 32769, 32770, 34713, 65e3, 65535]);
function isRaw(head) {
  const starts = (text2, at3 = 0) => head.toString("latin1", at3, at3 + text2.length) === text2;
  if (starts("FUJIFILMCCD-RAW ") || starts("ftypcrx ", 4) || starts("HEAPCCDR", 6) || starts("\0MRM") || starts("FOVb"))
    return true;
  if (starts("IIRO") || starts("IIRS") || starts("MMOR") || starts("IIU\0")) return true;
  if (!starts("II*\0") && !starts("MM\0*")) return false;
  if (starts("CR", 8)) return true;
  return directories(head).some(
    (tags) => tags.has(TAG.dngVersion) || SENSOR_PHOTOMETRIC.has(tags.get(TAG.photometric)) || SENSOR_COMPRESSION.has(tags.get(TAG.compression))
  );
}
async function previewOfRaw(file) {
  if ((await stat(file)).size > LARGEST_BYTES2) throw new UnusableFileError("A RAW file can be 300 MB at most.");
  const bytes = await readFile2(file);
  const notes = notesOfRaw(bytes);
  const found = jpegsIn(bytes).sort((a, b) => b.widthPx * b.heightPx - a.widthPx * a.heightPx);
  const largest = found[0];
  if (!largest)
    throw new UnusableFileError(
      "This RAW file holds no finished picture that could be shown. Develop it, save it as JPEG or TIFF and bring that."
    );
  if (Math.max(largest.widthPx, largest.heightPx) < LEAST_SIDE_PX)
    throw new UnusableFileError(
      `This RAW file holds only a thumbnail (${largest.widthPx} \xD7 ${largest.heightPx}). Develop it, save it as JPEG or TIFF and bring that.`
    );
  const whole2 = found.find((jpeg2) => jpeg2.widthPx === largest.widthPx && endOfJpeg(bytes, jpeg2) !== null);
  if (!whole2)
    throw new UnusableFileError(
      "The RAW file is cut short: its picture has no end. Copy it again from the camera or card."
    );
  const jpeg = bytes.subarray(whole2.at, endOfJpeg(bytes, whole2));
  const turned2 = notes.orientation !== void 0 && notes.orientation > 1 && !whole2.hasNotes;
  return { jpeg: turned2 ? withOrientation(jpeg, notes.orientation) : jpeg, notes };
}
function notesOfRaw(bytes) {
  const all = tiffsIn(bytes).flatMap(directories);
  const values = (tag) => all.map((tags) => tags.get(tag));
  const text2 = (tag) => values(tag).find((value) => typeof value === "string" && value !== "");
  const number2 = (tag) => values(tag).find((value) => typeof value === "number");
  const notes = {
    Make: text2(TAG.make),
    Model: text2(TAG.model),
    ImageDescription: text2(TAG.description),
    DateTimeOriginal: text2(TAG.takenAt),
    FocalLength: number2(TAG.focalLength),
    orientation: number2(TAG.orientation)
  };
  return Object.fromEntries(Object.entries(notes).filter(([, value]) => value !== void 0));
}
function tiffsIn(bytes) {
  if (bytes.toString("latin1", 4, 12) !== "ftypcrx ") return [bytes];
  return ["CMT1", "CMT2"].flatMap((name) => {
    const at3 = bytes.indexOf(name, 0, "latin1");
    if (at3 < 4) return [];
    return [bytes.subarray(at3 + 4, at3 - 4 + bytes.readUInt32BE(at3 - 4))];
  });
}
var MOST_DIRECTORIES = 24;
var MOST_ENTRIES = 512;
function directories(bytes) {
  const little = bytes.toString("latin1", 0, 2) === "II";
  const u16 = (at3) => little ? bytes.readUInt16LE(at3) : bytes.readUInt16BE(at3);
  const u32 = (at3) => little ? bytes.readUInt32LE(at3) : bytes.readUInt32BE(at3);
  const found = [];
  if (bytes.length < 8) return found;
  const waiting = [u32(4)];
  const seen2 = /* @__PURE__ */ new Set();
  while (waiting.length > 0 && found.length < MOST_DIRECTORIES) {
    const at3 = waiting.shift();
    if (at3 < 8 || at3 + 2 > bytes.length || seen2.has(at3)) continue;
    seen2.add(at3);
    const count = u16(at3);
    const end = at3 + 2 + 12 * count;
    if (count > MOST_ENTRIES || end > bytes.length) continue;
    const tags = /* @__PURE__ */ new Map();
    for (let entry = at3 + 2; entry < end; entry += 12) {
      const tag = u16(entry);
      if (tag === TAG.subIfds || tag === TAG.exifIfd) waiting.push(...pointers(entry));
      const value = valueAt2(entry);
      if (value !== null) tags.set(tag, value);
    }
    found.push(tags);
    if (end + 4 <= bytes.length) waiting.push(u32(end));
  }
  return found;
  function pointers(entry) {
    const count = Math.min(u32(entry + 4), MOST_DIRECTORIES);
    if (count === 1) return [u32(entry + 8)];
    const at3 = u32(entry + 8);
    return Array.from({ length: count }, (_, index) => at3 + 4 * index).filter((place) => place + 4 <= bytes.length).map(u32);
  }
  function valueAt2(entry) {
    const [type, count] = [u16(entry + 2), u32(entry + 4)];
    if (type === 1) return bytes[entry + 8];
    if (type === 3) return u16(entry + 8);
    if (type === 4) return u32(entry + 8);
    if (type === 5) {
      const at4 = u32(entry + 8);
      return at4 + 8 <= bytes.length && u32(at4 + 4) > 0 ? u32(at4) / u32(at4 + 4) : null;
    }
    if (type !== 2 || count > 4096) return null;
    const at3 = count <= 4 ? entry + 8 : u32(entry + 8);
    return at3 + count <= bytes.length ? bytes.toString("utf8", at3, at3 + count).replace(/\0.*$/s, "").trim() : null;
  }
}
var BEGINNING = Buffer.from([255, 216, 255]);
function jpegsIn(bytes) {
  const found = [];
  for (let at3 = bytes.indexOf(BEGINNING); at3 >= 0; at3 = bytes.indexOf(BEGINNING, at3 + 1)) {
    const jpeg = jpegAt(bytes, at3);
    if (jpeg) found.push(jpeg);
  }
  return found;
}
function jpegAt(bytes, at3) {
  let size = null;
  let hasNotes = false;
  let place = at3 + 2;
  while (place + 9 < bytes.length && bytes[place] === 255) {
    const marker = bytes[place + 1];
    if (marker >= 192 && marker <= 194)
      size = { heightPx: bytes.readUInt16BE(place + 5), widthPx: bytes.readUInt16BE(place + 7) };
    else if (marker >= 195 && marker <= 207 && marker !== 196 && marker !== 204) return null;
    else if (marker === 225 && bytes.toString("latin1", place + 4, place + 8) === "Exif") hasNotes = true;
    else if (marker < 192) return null;
    const next = place + 2 + bytes.readUInt16BE(place + 2);
    if (marker === 218)
      return size && size.widthPx > 0 && size.heightPx > 0 ? { at: at3, ...size, hasNotes, dataAt: next } : null;
    place = next;
  }
  return null;
}
function endOfJpeg(bytes, { dataAt }) {
  let at3 = bytes.indexOf(255, dataAt);
  while (at3 >= 0 && at3 + 1 < bytes.length) {
    const marker = bytes[at3 + 1];
    if (marker === 217) return at3 + 2;
    const isData = marker === 0 || marker === 255 || marker >= 208 && marker <= 215;
    if (!isData && at3 + 4 > bytes.length) return null;
    at3 = bytes.indexOf(255, isData ? at3 + (marker === 255 ? 1 : 2) : at3 + 2 + bytes.readUInt16BE(at3 + 2));
  }
  return null;
}
function withOrientation(jpeg, orientation) {
  const block = Buffer.from(
    "ffe100224578696600004d4d002a00000008000101120003000000010000000000000000",
    "hex"
  );
  block.writeUInt16BE(orientation, 28);
  return Buffer.concat([jpeg.subarray(0, 2), block, jpeg.subarray(2)]);
}

// src/server/assets/open-picture.ts
var LARGEST_DRAWING_BYTES = 8 * 1024 * 1024;
var DRAWING_SIDE_PX = 4096;
var USUAL_DENSITY = 72;
var HEIC_BRANDS = /* @__PURE__ */ new Set(["heic", "heix", "hevc", "hevx", "mif1", "msf1"]);
var HEAD_BYTES = 64 * 1024;
async function pictureKind(file) {
  const handle = await open(file, "r");
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(HEAD_BYTES), 0, HEAD_BYTES, 0);
    if (isRaw(buffer.subarray(0, bytesRead))) return "raw";
    if (buffer.toString("latin1", 4, 8) === "ftyp" && HEIC_BRANDS.has(buffer.toString("latin1", 8, 12)) && !buffer.toString("latin1", 16, 64).includes("avif"))
      return "heic";
    return /^\uFEFF?\s*(<\?xml[^>]*>\s*)?(<!--[\s\S]*?-->\s*|<!DOCTYPE svg[^>]*>\s*)*<svg[\s>]/.test(
      buffer.toString("utf8", 0, Math.min(bytesRead, 4096))
    ) ? "drawing" : "other";
  } finally {
    await handle.close();
  }
}
async function openPicture(file, widthPx, options) {
  const kind = await pictureKind(file);
  if (kind === "heic" || kind === "raw")
    return sharp2(existsSync(decodedCopy(file)) ? decodedCopy(file) : await decoded(file, kind), options).autoOrient();
  if (kind === "other") return sharp2(file, options).autoOrient();
  if ((await stat2(file)).size > LARGEST_DRAWING_BYTES) throw new RangeError("a drawing can be 8 MB at most");
  const bytes = await readFile3(file);
  const { width } = await sharp2(bytes).metadata();
  return sharp2(bytes, { ...options, density: Math.min(7200, Math.max(1, USUAL_DENSITY * widthPx / width)) });
}
async function uprightSize(picture2) {
  const { format, autoOrient } = await picture2.metadata();
  return { format, widthPx: autoOrient.width, heightPx: autoOrient.height };
}
async function keepDecoded(file) {
  const kind = await pictureKind(file);
  if (kind !== "heic" && kind !== "raw" || existsSync(decodedCopy(file))) return;
  const part = `${decodedCopy(file)}.${process.pid}.part`;
  await writeFile(part, await decoded(file, kind));
  await rename(part, decodedCopy(file));
}
async function decoded(file, kind) {
  return kind === "heic" ? decodeHeic(file) : (await previewOfRaw(file)).jpeg;
}

// src/server/assets/look-at-picture.ts
var MOST_PIXELS = 268435456;
var SMALL_WIDTH_PX = 320;
var LIKENESS_SIDE = 64;
var CUT_SHORT = "The file is cut short or damaged: it ends before the picture does. Copy it again from the camera or card.";
var LONGEST_CAPTION2 = 2e3;
async function lookAtPicture(file) {
  const size = await sizeOf(file);
  const small = await smallCopy(file);
  const tags = await tagsOf(file);
  const likeness3 = likenessOf(await greyOf(small), LIKENESS_SIDE);
  const bars = await barsOf2(small);
  const caption = captionOf(tags);
  return {
    facts: {
      kind: "picture",
      ...size,
      ...measured(small),
      takenAt: localTime(tags.DateTimeOriginal ?? tags.CreateDate),
      camera: cameraName(tags),
      ...await pictureKind(file) === "raw" && { raw: true },
      ...bars !== null && { bars },
      ...caption !== null && { caption },
      ...likeness3 !== null && { likeness: likeness3 }
    },
    small: sharp3(small.data, { raw: { width: small.widthPx, height: small.heightPx, channels: 4 } })
  };
}
var MOST_PIXELS_A_BYTE = 6e3;
async function assertNotEmpty(file, pixels) {
  if (await pictureKind(file) !== "other") return;
  const { size } = await stat3(file);
  if (pixels > 1e6 && pixels > size * MOST_PIXELS_A_BYTE) throw new UnusableFileError(CUT_SHORT);
}
async function sizeOf(file) {
  try {
    const { width, height, autoOrient } = await (await openPicture(file, 64, { limitInputPixels: false })).metadata();
    if (await pictureKind(file) === "drawing") {
      const scale = DRAWING_SIDE_PX / Math.max(width, height);
      return { widthPx: Math.max(1, Math.round(width * scale)), heightPx: Math.max(1, Math.round(height * scale)) };
    }
    if (width * height > MOST_PIXELS)
      throw new UnusableFileError(
        `The picture is ${width.toLocaleString("en")} \xD7 ${height.toLocaleString("en")} pixels; up to 268 million pixels can be read. Save a smaller copy.`
      );
    await assertNotEmpty(file, width * height);
    return { widthPx: autoOrient.width, heightPx: autoOrient.height };
  } catch (cause) {
    if (cause instanceof UnusableFileError) throw cause;
    throw new UnusableFileError(
      "The picture cannot be read; its file is damaged. Copy it again from the camera or card.",
      { cause }
    );
  }
}
async function smallCopy(file) {
  try {
    const picture2 = await openPicture(file, SMALL_WIDTH_PX, { limitInputPixels: MOST_PIXELS, failOn: "truncated" });
    const { data, info } = await picture2.resize({ width: SMALL_WIDTH_PX, withoutEnlargement: true }).toColourspace("srgb").ensureAlpha().raw({ depth: "uchar" }).toBuffer({ resolveWithObject: true });
    return { data, widthPx: info.width, heightPx: info.height };
  } catch (cause) {
    throw new UnusableFileError(CUT_SHORT, { cause });
  }
}
function measured({ data }) {
  let alphaSum = 0;
  let brightnessSum = 0;
  let lowestAlpha = 255;
  const histogram = new Array(256).fill(0);
  for (let at3 = 0; at3 < data.length; at3 += 4) {
    const alpha = data[at3 + 3];
    alphaSum += alpha;
    lowestAlpha = Math.min(lowestAlpha, alpha);
    const brightness = 0.2126 * data[at3] + 0.7152 * data[at3 + 1] + 0.0722 * data[at3 + 2];
    brightnessSum += alpha * brightness;
    histogram[Math.round(brightness)] += alpha;
  }
  return {
    hasTransparency: lowestAlpha < 250,
    brightness: alphaSum > 0 ? brightnessSum / alphaSum / 255 : 0,
    tonePoints: tonePoints(histogram)
  };
}
async function barsOf2({ data, widthPx, heightPx }) {
  const { data: grey } = await sharp3(data, { raw: { width: widthPx, height: heightPx, channels: 4 } }).flatten({ background: "#ffffff" }).greyscale().raw().toBuffer({ resolveWithObject: true });
  return darkBars(grey, widthPx, heightPx);
}
function greyOf({ data, widthPx, heightPx }) {
  return sharp3(data, { raw: { width: widthPx, height: heightPx, channels: 4 } }).flatten().resize(LIKENESS_SIDE, LIKENESS_SIDE, { fit: "fill" }).greyscale().raw().toBuffer();
}
async function tagsOf(file) {
  const wanted = [
    "DateTimeOriginal",
    "CreateDate",
    "Make",
    "Model",
    "FocalLength",
    "ImageDescription",
    "Caption",
    "description"
  ];
  const kind = await pictureKind(file);
  const raw2 = kind === "raw" ? await previewOfRaw(file) : null;
  const tags = await exifr.parse(raw2?.jpeg ?? (kind === "heic" ? await notesOfHeic(file) : file), {
    pick: wanted,
    iptc: true,
    xmp: true,
    reviveValues: false
  }).catch(() => void 0);
  return { ...tags, ...raw2?.notes };
}
async function notesOfHeic(file) {
  const { exif } = await sharp3(file).metadata();
  return exif ? exif.subarray(exif.toString("latin1", 0, 4) === "Exif" ? 6 : 0) : file;
}
function localTime(tag) {
  const match = typeof tag === "string" ? /^(\d{4}):(\d\d):(\d\d) (\d\d):(\d\d):(\d\d)/.exec(tag) : null;
  return match ? `${match[1]}-${match[2]}-${match[3]}T${match[4]}:${match[5]}:${match[6]}` : null;
}
function cameraName({ Make: make, Model: model, FocalLength: focal }) {
  if (typeof model !== "string" || model.trim() === "") return null;
  const maker = typeof make === "string" ? make.trim() : "";
  const name = model.trim();
  const lens = typeof focal === "number" && focal > 0 && focal < 1e4 ? `, ${Math.round(focal)} mm` : "";
  return `${(maker && !name.startsWith(maker) ? `${maker} ${name}` : name).slice(0, 120)}${lens}`;
}
function captionOf({ description, Caption: iptc, ImageDescription: exif }) {
  const xmp = typeof description === "object" && description !== null ? description.value : description;
  for (const text2 of [xmp, iptc, exif]) {
    const written = typeof text2 === "string" ? text2.replaceAll("\0", "").trim() : "";
    if (written !== "" && !/^(\w+ )?digital camera$|^dav$|^default$/i.test(written))
      return written.slice(0, LONGEST_CAPTION2);
  }
  return null;
}

// src/server/assets/resample.ts
import sharp4 from "sharp";
var BORDER_PX = 4;
async function resampled(picture2, of, widthPx, heightPx) {
  const read = await raw(
    picture2.resize(Math.min(widthPx, of.widthPx), Math.min(heightPx, of.heightPx), { fit: "fill", kernel: "lanczos3" })
  );
  return read.widthPx === widthPx && read.heightPx === heightPx ? read.data : enlarged2(read, widthPx, heightPx);
}
function shrinksUnevenly(format, of, widthPx) {
  if (format !== "jpeg" && format !== "webp") return false;
  const block = [8, 4, 2].find((size) => of.widthPx / widthPx >= size);
  return block !== void 0 && (of.widthPx % block !== 0 || of.heightPx % block !== 0);
}
async function raw(picture2) {
  const { data, info } = await picture2.toColourspace("srgb").ensureAlpha().raw({ depth: "uchar" }).toBuffer({ resolveWithObject: true });
  return { data, widthPx: info.width, heightPx: info.height };
}
async function enlarged2(read, widthPx, heightPx) {
  const { data: wide } = await sharp4(read.data, { raw: { width: read.widthPx, height: read.heightPx, channels: 4 } }).extend({ top: BORDER_PX, bottom: BORDER_PX, left: BORDER_PX, right: BORDER_PX, extendWith: "copy" }).raw().toBuffer({ resolveWithObject: true });
  const [scaleX, scaleY] = [widthPx / read.widthPx, heightPx / read.heightPx];
  const [left, top] = [Math.floor(BORDER_PX * scaleX), Math.floor(BORDER_PX * scaleY)];
  const { data, info } = await sharp4(wide, {
    raw: { width: read.widthPx + 2 * BORDER_PX, height: read.heightPx + 2 * BORDER_PX, channels: 4 }
  }).affine(
    [
      [scaleX, 0],
      [0, scaleY]
    ],
    {
      idx: 0.5,
      idy: 0.5,
      odx: left - BORDER_PX * scaleX - 0.5,
      ody: top - BORDER_PX * scaleY - 0.5,
      interpolator: "bicubic"
    }
  ).raw().toBuffer({ resolveWithObject: true });
  const out2 = Buffer.allocUnsafe(4 * widthPx * heightPx);
  for (let row = 0; row < heightPx; row += 1) {
    const from = 4 * ((row + top) * info.width + left);
    data.copy(out2, 4 * widthPx * row, from, from + 4 * widthPx);
  }
  return out2;
}
function hasTransparency(rgba) {
  for (let at3 = 3; at3 < rgba.length; at3 += 4) if (rgba[at3] !== 255) return true;
  return false;
}

// src/server/assets/read-picture.ts
async function readPictureFile(file, widthPx, heightPx, part) {
  const picture2 = await openPicture(file, part ? widthPx * part.ofWidthPx / part.widthPx : widthPx, {
    limitInputPixels: MOST_PIXELS,
    failOn: "none"
  });
  const { format, ...whole2 } = await uprightSize(picture2);
  const taken = part ?? (shrinksUnevenly(format, whole2, widthPx) ? { left: 0, top: 0, ...whole2 } : null);
  const read = taken ? picture2.extract({ left: taken.left, top: taken.top, width: taken.widthPx, height: taken.heightPx }) : picture2;
  const data = await resampled(read, taken ?? whole2, widthPx, heightPx);
  const rgba = new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
  return { widthPx, heightPx, rgba, hasTransparency: hasTransparency(rgba) };
}

// src/server/assets/file-reader.ts
function createFileReader(fileOf, facts2) {
  const clips = /* @__PURE__ */ new Map();
  return {
    readPicture: (assetId2, widthPx, heightPx, part) => readPictureFile(fileOf(assetId2), widthPx, heightPx, part),
    readClipFrame(assetId2, clipFrame, widthPx, heightPx) {
      const key2 = `${assetId2} ${widthPx}\xD7${heightPx}`;
      let clip = clips.get(key2);
      if (!clip) {
        const known = facts2.get(assetId2);
        clip = openClip(fileOf(assetId2), widthPx, heightPx, known?.kind === "clip" ? known.hdr : void 0);
        clips.set(key2, clip);
      }
      return clip.frame(clipFrame);
    },
    close() {
      for (const clip of clips.values()) clip.close();
      clips.clear();
    }
  };
}

// src/drawing/plates/gaussian.ts
function blur(plane2, width, height, sigma) {
  const radius = Math.ceil(3 * sigma);
  const weights = Float32Array.from(
    { length: 2 * radius + 1 },
    (_, index) => Math.exp(-((index - radius) ** 2) / (2 * sigma * sigma))
  );
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  for (let index = 0; index < weights.length; index += 1) weights[index] = weights[index] / total;
  const pass = (lines2, length, lineStep, step2) => {
    const line = new Float32Array(length + 2 * radius);
    for (let at3 = 0; at3 < lines2; at3 += 1) {
      const start2 = at3 * lineStep;
      for (let index = 0; index < line.length; index += 1)
        line[index] = plane2[start2 + step2 * Math.min(length - 1, Math.max(0, index - radius))];
      for (let index = 0; index < length; index += 1) {
        let sum = 0;
        for (let tap = 0; tap < weights.length; tap += 1) sum += weights[tap] * line[index + tap];
        plane2[start2 + step2 * index] = sum;
      }
    }
  };
  pass(height, width, width, 1);
  pass(width, height, 1, width);
}

// src/drawing/words/shape-line.ts
import bidiFactory from "bidi-js";
import { Buffer as Buffer2, Direction, shape } from "harfbuzzjs";

// src/drawing/words/clusters.ts
var PICTURE2 = String.raw`(?:\p{Emoji_Presentation}|\p{Extended_Pictographic}(?=\ufe0f|\u200d|\p{Emoji_Modifier}))(?!\ufe0e)(?:\ufe0f|\p{Emoji_Modifier})?(?:[\u{e0020}-\u{e007e}]+\u{e007f})?`;
var JOINED = String.raw`(?:\u200d\p{Extended_Pictographic}(?:\ufe0f|\p{Emoji_Modifier})?)*`;
var EMOJI = new RegExp(String.raw`\p{Regional_Indicator}{2}|[0-9#*]\ufe0f?\u20e3|${PICTURE2}${JOINED}`, "gu");
var LETTER = /[\u0e40-\u0e44\u0ec0-\u0ec4]?\P{M}[\p{M}\u200d\ufe0e\ufe0f\u0e33]*/gu;
function emojiParts(text2) {
  const parts = [];
  let from = 0;
  for (const found of text2.matchAll(EMOJI)) {
    if (found.index > from) parts.push({ text: text2.slice(from, found.index), start: from, isEmoji: false });
    parts.push({ text: found[0], start: found.index, isEmoji: true });
    from = found.index + found[0].length;
  }
  if (from < text2.length) parts.push({ text: text2.slice(from), start: from, isEmoji: false });
  return parts;
}
function clustersOf(text2) {
  return emojiParts(text2).flatMap((part) => {
    if (part.isEmoji) return [part.text];
    const letters = part.text.match(LETTER) ?? [];
    const before = part.text.slice(0, part.text.length - letters.join("").length);
    return before === "" ? letters : [before, ...letters];
  });
}

// src/drawing/words/shape-line.ts
var bidi = bidiFactory();
var UNITS = 2048;
var JOINED2 = /[\p{Script=Arabic}\p{Script=Syriac}\p{Script=Devanagari}]/u;
function shapeLine(text2, fonts, spacingEms = 0) {
  const glyphs = [];
  let x = 0;
  const { runs, rightToLeft } = visualRuns(text2, fonts);
  for (const run of runs) {
    const { font, isEmoji } = run.font;
    font.setScale(UNITS, UNITS);
    const buffer = new Buffer2();
    buffer.addText(run.text);
    buffer.guessSegmentProperties();
    buffer.setDirection(run.rightToLeft ? Direction.RTL : Direction.LTR);
    shape(font, buffer);
    const infos = buffer.getGlyphInfos();
    const positions = buffer.getGlyphPositions();
    const spacing = JOINED2.test(run.text) ? 0 : spacingEms * UNITS;
    infos.forEach((info, index) => {
      const position = positions[index];
      const advance = position.xAdvance + (position.xAdvance > 0 ? spacing : 0);
      glyphs.push({
        font,
        isEmoji,
        glyph: info.codepoint,
        x: (x + position.xOffset) / UNITS,
        y: position.yOffset / UNITS,
        at: run.start + info.cluster,
        advance: advance / UNITS
      });
      x += advance;
    });
  }
  return { text: text2, glyphs, widthEms: x / UNITS, rightToLeft };
}
function visualRuns(text2, fonts) {
  const { levels, paragraphs } = bidi.getEmbeddingLevels(text2);
  const runs = [];
  const add2 = (signs, start2, font) => {
    const level = levels[start2];
    const last = runs.at(-1);
    if (last && last.level === level && last.font === font)
      runs[runs.length - 1] = { ...last, text: last.text + signs };
    else runs.push({ text: signs, start: start2, font, level, rightToLeft: level % 2 === 1 });
  };
  const emoji = fonts.find((font) => font.isEmoji);
  for (const part of emojiParts(text2)) {
    if (part.isEmoji && emoji) {
      add2(part.text, part.start, emoji);
      continue;
    }
    let at3 = part.start;
    for (const character of part.text) {
      const last = runs.at(-1);
      const stays = last && at3 > part.start && last.level === levels[at3] && !last.font.isEmoji && (/^[\p{M}\s\u200d\ufe0e\ufe0f]$/u.test(character) || has(last.font, character));
      add2(character, at3, stays ? last.font : fontFor(character, fonts));
      at3 += character.length;
    }
  }
  const highest = Math.max(0, ...runs.map((run) => run.level));
  for (let level = highest; level >= 1; level -= 1) {
    for (let from = 0; from < runs.length; from += 1) {
      if (runs[from].level < level) continue;
      let to = from;
      while (to < runs.length && runs[to].level >= level) to += 1;
      runs.splice(from, to - from, ...runs.slice(from, to).reverse());
      from = to;
    }
  }
  return { runs, rightToLeft: (paragraphs[0]?.level ?? 0) % 2 === 1 };
}
function fontFor(character, fonts) {
  return fonts.find((font) => has(font, character)) ?? fonts[0];
}
function has({ font }, character) {
  return Boolean(font.nominalGlyph(character.codePointAt(0)));
}

// src/drawing/words/break-lines.ts
import LineBreaker from "linebreak";
function brokenText(text2, measure, balanced = false) {
  if (text2.trim() === "") return { lines: [], tornEms: 0 };
  const paragraphs = text2.trim().split(/\r?\n/).map((paragraph) => balanced ? balancedParagraph(paragraph, measure) : brokenParagraph(paragraph, measure));
  return {
    lines: paragraphs.flatMap((one) => one.lines),
    tornEms: Math.max(...paragraphs.map((one) => one.tornEms))
  };
}
var MOST_BALANCED = 6;
function balancedParagraph(text2, measure) {
  const natural = brokenParagraph(text2, measure);
  const count = natural.lines.length;
  if (count < 2 || count > MOST_BALANCED || natural.tornEms > 0) return natural;
  let [narrow, wide] = [measure.ems / count, measure.ems];
  let best2 = natural;
  for (let step2 = 0; step2 < 7; step2 += 1) {
    const ems = (narrow + wide) / 2;
    const tried = brokenParagraph(text2, { ...measure, ems });
    if (tried.lines.length > count || tried.tornEms > 0) narrow = ems;
    else {
      wide = ems;
      best2 = tried;
    }
  }
  return best2;
}
function brokenParagraph(text2, { fonts, ems, spacing }) {
  const lines2 = [];
  let tornEms = 0;
  let open2 = "";
  const close = (line) => lines2.push(shapeLine(line.trimEnd(), fonts, spacing));
  for (const piece of piecesOf(text2)) {
    if (shapeLine((open2 + piece).trimEnd(), fonts, spacing).widthEms <= ems) {
      open2 += piece;
      continue;
    }
    if (open2.trim() !== "") close(open2);
    const pieceEms = shapeLine(piece.trimEnd(), fonts, spacing).widthEms;
    open2 = piece;
    if (pieceEms <= ems) continue;
    tornEms = Math.max(tornEms, pieceEms);
    const parts = tornWord(piece, (part) => shapeLine(part, fonts, spacing).widthEms <= ems);
    for (const part of parts.slice(0, -1)) close(part);
    open2 = parts.at(-1);
  }
  if (open2.trim() !== "" || lines2.length === 0) close(open2);
  return { lines: lines2, tornEms };
}
var HYPHENATED = /\p{Script=Latin}|\p{Script=Greek}|\p{Script=Cyrillic}/u;
var LEAST_LETTERS = 3;
function tornWord(word, fits) {
  const parts = [];
  let left = clustersOf(word);
  while (left.length > 1 && !fits(left.join("").trimEnd())) {
    let count = 1;
    while (count < left.length && fits(partOf(left, count + 1))) count += 1;
    count = Math.max(1, Math.min(count, left.length > 2 * LEAST_LETTERS ? left.length - LEAST_LETTERS : count));
    parts.push(partOf(left, count));
    left = left.slice(count);
  }
  return [...parts, left.join("")];
}
function partOf(clusters, count) {
  const part = clusters.slice(0, count).join("");
  const letters = HYPHENATED.test(clusters[count - 1] ?? "") && HYPHENATED.test(clusters[count] ?? "");
  return letters ? `${part}-` : part;
}
var THAI = /\p{Script=Thai}/u;
var thaiWords = new Intl.Segmenter("th", { granularity: "word" });
function piecesOf(text2) {
  const breaker = new LineBreaker(text2);
  const result = [];
  let from = 0;
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) {
    const piece = text2.slice(from, next.position);
    result.push(...THAI.test(piece) ? thaiPieces(piece) : [piece]);
    from = next.position;
  }
  return result;
}
function thaiPieces(text2) {
  const words2 = [];
  for (const { segment } of thaiWords.segment(text2)) {
    if (words2.length > 0 && !/^[\p{L}\p{N}]/u.test(segment)) words2[words2.length - 1] += segment;
    else words2.push(segment);
  }
  return words2;
}

// src/drawing/words/lay-out-words.ts
var TITLE_SIZE = 0.082;
var SUBTITLE_SHARE = 0.042 / 0.082;
var LINE_HEIGHT = 1.14;
var GAP = 0.018;
var MARGIN2 = 0.075;
var MEASURE = 0.8;
var COLUMN_GAP = 1.4;
var ASCENT = 0.92;
var LEAST_FOR_WORDS = 0.65;
var LEAST_FOR_FRAME = 0.3;
var SMALLER = 0.94;
function layOutWords(look2, fonts, frame) {
  if (look2.crawls) return laidOut(look2, fonts, frame, 1);
  const first = laidOut(look2, fonts, frame, 1);
  let scale = first.wordScale < 1 ? Math.max(LEAST_FOR_WORDS, 0.997 * first.wordScale) : 1;
  let words2 = scale < 1 ? laidOut(look2, fonts, frame, scale) : first;
  const roomPx = Math.min(
    frame.heightPx - 2 * MARGIN2 * Math.min(frame.heightPx, frame.widthPx),
    (look2.style.room ?? 1) * frame.heightPx
  );
  while (!look2.rolls && words2.heightPx > roomPx && scale > LEAST_FOR_FRAME) {
    scale *= SMALLER;
    words2 = laidOut(look2, fonts, frame, scale);
  }
  return words2;
}
function laidOut(look2, fonts, frame, scale) {
  const { style, crawls } = look2;
  const measurePx = crawls ? Infinity : (style.measure ?? MEASURE) * frame.widthPx;
  const unitPx = Math.min(frame.heightPx, frame.widthPx);
  const titlePx = scale * (style.size ?? TITLE_SIZE) * unitPx;
  const textPx = titlePx * SUBTITLE_SHARE;
  const spacing = style.letterSpacing ?? 0;
  const broken = (text3, of, sizePx, balanced) => brokenText(crawls ? inOneLine(text3) : text3, { fonts: of, ems: measurePx / sizePx, spacing }, balanced);
  const title = broken(look2.title, fonts.title, titlePx, !crawls);
  const pairs = look2.rolls ? pairedLines(look2.subtitle) : null;
  const text2 = pairs ? { lines: [], tornEms: 0 } : broken(look2.subtitle, fonts.text, textPx, false);
  const rows3 = [
    ...title.lines.map((line) => ({ line, sizePx: titlePx, isTitle: true, column: null })),
    ...text2.lines.map((line) => ({ line, sizePx: textPx, isTitle: false, column: null })),
    ...(pairs ?? []).flatMap(([left, right2]) => {
      const row = { sizePx: textPx, isTitle: false };
      if (left.trim() === "") return [{ ...row, line: shapeLine("", fonts.text, spacing), column: null }];
      if (right2 === null)
        return broken(left, fonts.text, textPx, false).lines.map((line) => ({ ...row, line, column: null }));
      return [
        { ...row, line: shapeLine(left, fonts.text, spacing), column: "left" },
        { ...row, line: shapeLine(right2, fonts.text, spacing), column: "right" }
      ];
    })
  ];
  const widestPairPx = rows3.reduce(
    (widest, { column: column2, line, sizePx }) => column2 === null ? widest : Math.max(widest, 2 * (line.widthEms * sizePx + COLUMN_GAP * sizePx / 2)),
    0
  );
  const wordScale = measurePx / Math.max(measurePx, title.tornEms * titlePx, text2.tornEms * textPx, widestPairPx);
  const titleCount = title.lines.length;
  const gapPx = titleCount > 0 && rows3.length > titleCount ? GAP * unitPx : 0;
  const lineHeight = LINE_HEIGHT * (style.lineSpacing ?? 1);
  const heightPx = rows3.reduce((sum, row) => sum + (row.column === "right" ? 0 : row.sizePx * lineHeight), gapPx);
  const marginPx = MARGIN2 * unitPx;
  const [horizontal, vertical] = anchorOf(look2.place);
  const widestPx = Math.max(0, ...rows3.map((row) => row.line.widthEms * row.sizePx));
  const align = style.align === void 0 ? horizontal : { left: 0, centre: 0.5, right: 1 }[style.align];
  const blockLeftPx = marginPx + (frame.widthPx - 2 * marginPx - widestPx) * horizontal;
  let topPx = marginPx + (frame.heightPx - 2 * marginPx - heightPx) * vertical;
  const blockTopPx = topPx;
  const middlePx = frame.widthPx / 2;
  const lines2 = rows3.map(({ column: column2, ...row }, index) => {
    if (index === titleCount) topPx += gapPx;
    if (column2 === "right") topPx -= row.sizePx * lineHeight;
    const widthPx = row.line.widthEms * row.sizePx;
    const halfGapPx = COLUMN_GAP * row.sizePx / 2;
    const leftPx = column2 === null ? blockLeftPx + (widestPx - widthPx) * align : column2 === "left" ? middlePx - halfGapPx - widthPx : middlePx + halfGapPx;
    const placed2 = { ...row, leftPx, baselinePx: topPx + ASCENT * row.sizePx };
    topPx += row.sizePx * lineHeight;
    return placed2;
  });
  return { lines: lines2, topPx: blockTopPx, heightPx, scale, wordScale: crawls ? 1 : wordScale };
}
function pairedLines(text2) {
  const lines2 = text2.trim().split(/\r?\n/).map((line) => {
    const parts = /^(.*?\S)(?:\t\s*| {2,})(\S.*)$/.exec(line.trim());
    return parts ? [parts[1], parts[2]] : [line, null];
  });
  return lines2.some(([, right2]) => right2 !== null) ? lines2 : null;
}
function inOneLine(text2) {
  return text2.trim().replace(/\s*\r?\n\s*/g, " \xB7 ");
}

// src/drawing/words/paint-colour-glyph.ts
import { PaintFuncs } from "harfbuzzjs";
var EVERYWHERE = 1e5;
var MODES2 = [
  "copy",
  "copy",
  "destination-over",
  "source-over",
  "destination-over",
  "source-in",
  "destination-in",
  "source-out",
  "destination-out",
  "source-atop",
  "destination-atop",
  "xor",
  "lighter",
  "screen",
  "overlay",
  "darken",
  "lighten",
  "color-dodge",
  "color-burn",
  "hard-light",
  "soft-light",
  "difference",
  "exclusion",
  "multiply",
  "hue",
  "saturation",
  "color",
  "luminosity"
];
function paintColourGlyph(drawing2, canvas2, widthPx, heightPx, font, glyph, x, y, scale) {
  const pile2 = [canvas2];
  const top = () => pile2.at(-1).context;
  const paints = new PaintFuncs();
  const fill = (style) => {
    top().fillStyle = style;
    top().fillRect(-EVERYWHERE, -EVERYWHERE, 2 * EVERYWHERE, 2 * EVERYWHERE);
  };
  const stopped = (gradient, line) => {
    for (const stop of [...line.colorStops].sort((a, b) => a.offset - b.offset))
      gradient.addColorStop(Math.min(1, Math.max(0, stop.offset)), css(stop.color));
    return gradient;
  };
  paints.setPushTransformFunc((xx, yx, xy, yy, dx, dy) => {
    top().save();
    top().transform(xx, yx, xy, yy, dx, dy);
  });
  paints.setPopTransformFunc(() => top().restore());
  paints.setPushClipGlyphFunc((clip, clipFont) => {
    top().save();
    top().clip(drawing2.path(clipFont.glyphToPath(clip)));
  });
  paints.setPushClipRectangleFunc((left, low, right2, high) => {
    top().save();
    top().beginPath();
    top().rect(left, low, right2 - left, high - low);
    top().clip();
  });
  paints.setPopClipFunc(() => top().restore());
  paints.setColorFunc((_foreground, colour) => fill(css(colour)));
  paints.setLinearGradientFunc((line, x0, y0, x1, y1, x2, y2) => {
    const [px, py] = [y2 - y0, x0 - x2];
    const length = px * px + py * py;
    const along2 = length === 0 ? 0 : ((x1 - x0) * px + (y1 - y0) * py) / length;
    fill(stopped(top().createLinearGradient(x0, y0, x0 + px * along2, y0 + py * along2), line));
  });
  paints.setRadialGradientFunc(
    (line, x0, y0, r0, x1, y1, r1) => fill(stopped(top().createRadialGradient(x0, y0, r0, x1, y1, r1), line))
  );
  paints.setSweepGradientFunc(
    (line, x0, y0, startAngle) => fill(stopped(top().createConicGradient(startAngle, x0, y0), line))
  );
  paints.setPushGroupFunc(() => {
    const group = drawing2.open(widthPx, heightPx);
    group.context.setTransform(top().getTransform());
    pile2.push(group);
  });
  paints.setPopGroupFunc((mode) => {
    const group = pile2.pop();
    const below = top();
    below.save();
    below.setTransform(1, 0, 0, 1, 0, 0);
    below.globalCompositeOperation = MODES2[mode] ?? "source-over";
    below.drawImage(group.image, 0, 0);
    below.restore();
  });
  canvas2.context.save();
  canvas2.context.setTransform(scale, 0, 0, -scale, x, y);
  font.paintGlyph(glyph, paints);
  canvas2.context.restore();
}
function css({ red, green, blue, alpha }) {
  return `rgba(${red},${green},${blue},${alpha / 255})`;
}

// src/drawing/words/draw-words.ts
var USUAL_SHADOW = { colour: "#000000", opacity: 0.72, softness: 0.11, x: 0, y: 0.04 };
var SHADOW_GAIN = 1.6;
var TITLE_WEIGHT = 700;
var TEXT_WEIGHT = 500;
async function drawWords(look2, shelf, drawing2, frame) {
  const { style } = look2;
  const [title, text2] = await Promise.all([
    shelf.chainFor(style.font ?? "bricolage", style.weight ?? TITLE_WEIGHT, look2.title),
    shelf.chainFor(
      style.subtitleFont ?? style.font ?? "instrument",
      style.weight === void 0 ? TEXT_WEIGHT : Math.min(style.weight, TEXT_WEIGHT + 100),
      look2.subtitle
    )
  ]);
  const words2 = layOutWords(look2, { title, text: text2 }, frame);
  const lines2 = words2.lines.filter((line) => line.line.glyphs.length > 0);
  if (lines2.length === 0) return null;
  const { pieces, counts } = piecesOf2(lines2, look2);
  const travels = look2.crawls || look2.rolls;
  const drawn = pieces.flatMap((piece) => drawPiece(piece, look2, drawing2, travels ? null : frame));
  const ordered = [
    ...boxOf(words2, lines2, look2, drawing2),
    ...drawn.filter((piece) => piece.isShadow),
    ...drawn.filter((piece) => !piece.isShadow)
  ];
  const leftPx = Math.min(...lines2.map((line) => line.leftPx));
  return {
    pieces: ordered.map(({ piece }) => piece),
    counts,
    topPx: words2.topPx,
    heightPx: words2.heightPx,
    scale: words2.scale,
    leftPx,
    widthPx: Math.max(...lines2.map((line) => line.leftPx + line.line.widthEms * line.sizePx)) - leftPx
  };
}
function piecesOf2(lines2, look2) {
  const byKey = /* @__PURE__ */ new Map();
  let words2 = 0;
  let letters = 0;
  lines2.forEach((of, line) => {
    const reading = [...of.line.glyphs].sort((a, b) => a.at - b.at);
    let before = -1;
    for (const glyph of reading) {
      const between4 = of.line.text.slice(Math.max(0, before), glyph.at);
      if (before < 0 || /\s/.test(between4)) words2 += 1;
      if (glyph.at !== before) letters += 1;
      before = glyph.at;
      const key2 = { all: "all", line: `l${line}`, word: `w${words2}`, letter: `c${letters}` }[look2.unit];
      const piece = byKey.get(key2) ?? { glyphs: [], line, word: words2 - 1, letter: letters - 1 };
      piece.glyphs.push({ glyph, of });
      byKey.set(key2, piece);
    }
  });
  return { pieces: [...byKey.values()], counts: { line: lines2.length, word: words2, letter: letters } };
}
function drawPiece(piece, look2, drawing2, frame) {
  const { style } = look2;
  const sizePx = Math.max(...piece.glyphs.map(({ of }) => of.sizePx));
  const shadow = style.shadow === "none" ? null : style.shadow ?? USUAL_SHADOW;
  const room = Math.ceil(
    sizePx * (0.45 + (style.outline?.width ?? 0) + (shadow ? 3 * shadow.softness + Math.max(Math.abs(shadow.x), Math.abs(shadow.y)) : 0))
  );
  const edges2 = piece.glyphs.map(({ glyph, of }) => ({
    left: of.leftPx + glyph.x * of.sizePx,
    right: of.leftPx + (glyph.x + Math.max(glyph.advance, 0.3)) * of.sizePx,
    top: of.baselinePx - of.sizePx,
    bottom: of.baselinePx + 0.3 * of.sizePx
  }));
  const held = (value, most) => frame ? Math.min(most, Math.max(0, value)) : value;
  const leftPx = evenDown(held(Math.min(...edges2.map((edge) => edge.left)) - room, frame?.widthPx ?? 0));
  const topPx = evenDown(held(Math.min(...edges2.map((edge) => edge.top)) - room, frame?.heightPx ?? 0));
  const widthPx = evenDown(
    held(Math.ceil(Math.max(...edges2.map((edge) => edge.right)) + room), frame?.widthPx ?? 0) - leftPx
  );
  const heightPx = evenDown(
    held(Math.ceil(Math.max(...edges2.map((edge) => edge.bottom)) + room), frame?.heightPx ?? 0) - topPx
  );
  if (widthPx < 2 || heightPx < 2 || widthPx > 8e3) return [];
  const canvas2 = drawing2.open(widthPx, heightPx);
  const { context } = canvas2;
  const plain3 = piece.glyphs.filter(({ glyph }) => !glyph.isEmoji);
  for (const title of [true, false]) {
    const path3 = outlineOf(
      plain3.filter(({ of }) => of.isTitle === title),
      leftPx,
      topPx
    );
    if (path3 === "") continue;
    const letters = drawing2.path(path3);
    if (style.outline) {
      context.strokeStyle = style.outline.colour;
      context.lineJoin = "round";
      context.lineWidth = 2 * style.outline.width * sizePx;
      context.stroke(letters);
    }
    context.fillStyle = title ? style.colour ?? "#ffffff" : style.accent ?? style.colour ?? "#ffffff";
    context.fill(letters);
  }
  for (const { glyph, of } of piece.glyphs) {
    if (!glyph.isEmoji) continue;
    paintColourGlyph(
      drawing2,
      canvas2,
      widthPx,
      heightPx,
      glyph.font,
      glyph.glyph,
      of.leftPx - leftPx + glyph.x * of.sizePx,
      of.baselinePx - topPx - glyph.y * of.sizePx,
      of.sizePx / UNITS
    );
  }
  const face = canvas2.pixels();
  const place = {
    leftPx,
    topPx,
    sizePx,
    line: piece.line,
    word: piece.word,
    letter: piece.letter,
    rightToLeft: piece.glyphs[0].of.line.rightToLeft
  };
  const as = (rgba, isShadow) => ({
    isShadow,
    piece: { ...place, pixels: { widthPx, heightPx, rgba, hasTransparency: true } }
  });
  if (!shadow) return [as(face, false)];
  const alpha = shadowOf(face, widthPx, heightPx, {
    x: shadow.x * sizePx,
    y: shadow.y * sizePx,
    sigma: shadow.softness * sizePx,
    opacity: shadow.opacity
  });
  if (look2.unit === "all") return [as(faceOnShadow(face, alpha, shadow.colour), false)];
  return [as(coloured(alpha, shadow.colour), true), as(face, false)];
}
function outlineOf(glyphs, leftPx, topPx) {
  const parts = [];
  for (const { glyph, of } of glyphs) {
    const scale = of.sizePx / UNITS;
    const x = of.leftPx - leftPx + glyph.x * of.sizePx;
    const y = of.baselinePx - topPx - glyph.y * of.sizePx;
    for (const command of glyph.font.glyphToJson(glyph.glyph)) {
      const numbers = command.values.map(
        (value, index) => (index % 2 === 0 ? x + value * scale : y - value * scale).toFixed(3)
      );
      parts.push(command.type + numbers.join(" "));
    }
  }
  return parts.join("");
}
function shadowOf(face, widthPx, heightPx, how) {
  const shadow = new Float32Array(widthPx * heightPx);
  const [dx, dy] = [Math.round(how.x), Math.round(how.y)];
  for (let y = Math.max(0, dy); y < Math.min(heightPx, heightPx + dy); y += 1) {
    for (let x = Math.max(0, dx); x < Math.min(widthPx, widthPx + dx); x += 1)
      shadow[y * widthPx + x] = face[4 * ((y - dy) * widthPx + x - dx) + 3] / 255;
  }
  blur(shadow, widthPx, heightPx, Math.max(0.5, how.sigma));
  for (let index = 0; index < shadow.length; index += 1)
    shadow[index] = Math.min(1, shadow[index] * SHADOW_GAIN) * how.opacity;
  return shadow;
}
function faceOnShadow(face, shadow, colour) {
  const [r, g, b] = channels(colour);
  const out2 = new Uint8ClampedArray(face.length);
  for (let index = 0; index < shadow.length; index += 1) {
    const letter = face[4 * index + 3] / 255;
    const rest = (1 - letter) * shadow[index];
    const alpha = letter + rest;
    if (alpha === 0) continue;
    out2[4 * index] = (face[4 * index] * letter + r * rest) / alpha;
    out2[4 * index + 1] = (face[4 * index + 1] * letter + g * rest) / alpha;
    out2[4 * index + 2] = (face[4 * index + 2] * letter + b * rest) / alpha;
    out2[4 * index + 3] = alpha * 255;
  }
  return out2;
}
function coloured(alpha, colour) {
  const [r, g, b] = channels(colour);
  const out2 = new Uint8ClampedArray(4 * alpha.length);
  for (let index = 0; index < alpha.length; index += 1) out2.set([r, g, b, alpha[index] * 255], 4 * index);
  return out2;
}
function boxOf(words2, lines2, look2, drawing2) {
  const { box: box2 } = look2.style;
  if (!box2) return [];
  const sizePx = Math.max(...lines2.map((line) => line.sizePx));
  const room = box2.padding * sizePx;
  const leftPx = evenDown(Math.min(...lines2.map((line) => line.leftPx)) - room);
  const topPx = evenDown(words2.topPx - room);
  const widthPx = evenDown(
    Math.min(
      8e3,
      Math.ceil(Math.max(...lines2.map((line) => line.leftPx + line.line.widthEms * line.sizePx)) + room) - leftPx
    )
  );
  const heightPx = evenDown(Math.ceil(words2.topPx + words2.heightPx + room) - topPx);
  if (widthPx < 2 || heightPx < 2) return [];
  const canvas2 = drawing2.open(widthPx, heightPx);
  canvas2.context.fillStyle = box2.colour;
  canvas2.context.beginPath();
  canvas2.context.roundRect(0, 0, widthPx, heightPx, Math.min(box2.radius * sizePx, heightPx / 2, widthPx / 2));
  canvas2.context.fill();
  const rgba = canvas2.pixels();
  for (let at3 = 3; at3 < rgba.length; at3 += 4) rgba[at3] = rgba[at3] * box2.opacity;
  return [
    {
      isShadow: true,
      piece: {
        pixels: { widthPx, heightPx, rgba, hasTransparency: true },
        leftPx,
        topPx,
        sizePx,
        line: -1,
        word: -1,
        letter: -1,
        rightToLeft: false
      }
    }
  ];
}
function channels(colour) {
  return [1, 3, 5].map((at3) => Number.parseInt(colour.slice(at3, at3 + 2), 16));
}
function evenDown(value) {
  return Math.floor(value / 2) * 2;
}

// src/drawing/plates/blurred-backing.ts
var BACKING_SOURCE_WIDTH_PX = 192;
var SATURATION = 0.75;
function fillWithBlur(kernels, surface, pixels, how) {
  const frameAspect = surface.widthPx / surface.heightPx;
  const aspect = pixels.widthPx / pixels.heightPx;
  const cover = aspect > frameAspect ? { width: frameAspect / aspect, height: 1 } : { width: 1, height: aspect / frameAspect };
  const planes = floatPlanes(pixels, 1 - how.darkness, Math.max(0.4, how.amount * cover.height * pixels.heightPx));
  const memory = bytesOf(kernels);
  const crop = {
    x: (1 - cover.width) / 2 * pixels.widthPx,
    y: (1 - cover.height) / 2 * pixels.heightPx,
    width: cover.width * pixels.widthPx,
    height: cover.height * pixels.heightPx
  };
  const lay = (plane2, to, stride, width, height, salt) => enlarge(plane2, pixels.widthPx, pixels.heightPx, crop, memory, to, stride, width, height, salt);
  lay(planes.y, surface.y, surface.yStride, surface.widthPx, surface.heightPx, 1);
  lay(planes.u, surface.u, surface.cStride, surface.widthPx / 2, surface.heightPx / 2, 2);
  lay(planes.v, surface.v, surface.cStride, surface.widthPx / 2, surface.heightPx / 2, 3);
}
function floatPlanes(pixels, brightness, sigma) {
  const count = pixels.widthPx * pixels.heightPx;
  const y = new Float32Array(count);
  const u = new Float32Array(count);
  const v = new Float32Array(count);
  for (let index = 0; index < count; index += 1) {
    const r = pixels.rgba[4 * index];
    const g = pixels.rgba[4 * index + 1];
    const b = pixels.rgba[4 * index + 2];
    const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
    y[index] = 16 + luma * brightness * 219 / 255;
    u[index] = 128 + (b - luma) / 1.8556 * brightness * SATURATION * (224 / 255);
    v[index] = 128 + (r - luma) / 1.5748 * brightness * SATURATION * (224 / 255);
  }
  for (const plane2 of [y, u, v]) blur(plane2, pixels.widthPx, pixels.heightPx, sigma);
  return { y, u, v };
}
function enlarge(plane2, planeWidth, planeHeight, crop, memory, to, stride, width, height, salt) {
  const left = new Int32Array(width);
  const share = new Float32Array(width);
  for (let x = 0; x < width; x += 1) {
    const at3 = Math.min(planeWidth - 1, Math.max(0, crop.x + (x + 0.5) * crop.width / width - 0.5));
    left[x] = Math.min(planeWidth - 2, Math.floor(at3));
    share[x] = at3 - left[x];
  }
  let noise = 2654435769 ^ salt;
  for (let y = 0; y < height; y += 1) {
    const at3 = Math.min(planeHeight - 1, Math.max(0, crop.y + (y + 0.5) * crop.height / height - 0.5));
    const top = Math.min(planeHeight - 2, Math.floor(at3));
    const lower = at3 - top;
    const a = top * planeWidth;
    const b = a + planeWidth;
    for (let x = 0; x < width; x += 1) {
      const l = left[x];
      const s = share[x];
      const upper = plane2[a + l] + (plane2[a + l + 1] - plane2[a + l]) * s;
      const under = plane2[b + l] + (plane2[b + l + 1] - plane2[b + l]) * s;
      noise ^= noise << 13;
      noise ^= noise >>> 17;
      noise ^= noise << 5;
      memory[to + y * stride + x] = upper + (under - upper) * lower + (noise >>> 0) / 4294967296;
    }
  }
}

// src/drawing/plates/painted.ts
function paintShape(shape3, fill, size, drawing2) {
  const { widthPx, heightPx } = size;
  const path3 = shapePath(shape3, widthPx, heightPx);
  const cover = path3 === null ? null : coverage(path3, size, drawing2);
  const colourAt2 = fill.kind === "colour" ? plain2(fill.colour) : gradientAt2(fill, widthPx, heightPx);
  const rgba = new Uint8ClampedArray(4 * widthPx * heightPx);
  let seeThrough = cover !== null;
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const at3 = y * widthPx + x;
      const [r, g, b, a] = colourAt2(x + 0.5, y + 0.5);
      const grain = fill.kind === "colour" ? 0.5 : dither(x, y);
      rgba[4 * at3] = Math.floor(r + grain);
      rgba[4 * at3 + 1] = Math.floor(g + grain);
      rgba[4 * at3 + 2] = Math.floor(b + grain);
      rgba[4 * at3 + 3] = Math.floor(a * (cover ? cover[at3] : 255) + grain);
      if (a < 1) seeThrough = true;
    }
  }
  return { widthPx, heightPx, rgba, hasTransparency: seeThrough };
}
function paintStencil(look2, drawing2) {
  const { widthPx, heightPx } = look2.bitmap;
  const shorter = Math.min(widthPx, heightPx);
  const cover = Float32Array.from(
    coverage(edgePath(look2.shape, widthPx, heightPx), look2.bitmap, drawing2, 2 * look2.inset * shorter),
    (value) => value / 255
  );
  return {
    widthPx,
    heightPx,
    rgba: white(look2.feather > 0 ? feathered(cover, widthPx, heightPx, look2.feather * shorter) : cover),
    hasTransparency: true
  };
}
function feathered(cover, widthPx, heightPx, widthOfFeather) {
  const room = Math.ceil(widthOfFeather * 1.5);
  const [w, h] = [widthPx + 2 * room, heightPx + 2 * room];
  const roomy = new Float32Array(w * h);
  for (let y = 0; y < heightPx; y += 1)
    roomy.set(cover.subarray(y * widthPx, (y + 1) * widthPx), (y + room) * w + room);
  blur(roomy, w, h, Math.max(0.5, widthOfFeather / 2));
  const out2 = new Float32Array(widthPx * heightPx);
  for (let y = 0; y < heightPx; y += 1)
    for (let x = 0; x < widthPx; x += 1)
      out2[y * widthPx + x] = Math.min(1, Math.max(0, 2 * roomy[(y + room) * w + x + room] - 1));
  return out2;
}
function paintOutline2(look2, drawing2) {
  const { widthPx: w, heightPx: h } = look2.bitmap;
  const line = look2.width * Math.min(w, h);
  const margin = look2.where === "inside" ? 2 : Math.ceil(line) + 3;
  const [widthPx, heightPx] = [w + 2 * margin, h + 2 * margin];
  const canvas2 = drawing2.open(widthPx, heightPx);
  const { context } = canvas2;
  const path3 = drawing2.path(edgePath(look2.shape, w, h));
  context.translate(margin, margin);
  context.strokeStyle = look2.colour;
  context.fillStyle = look2.colour;
  context.lineJoin = look2.shape === null ? "miter" : "round";
  context.lineWidth = look2.where === "centre" ? line : 2 * line;
  context.stroke(path3);
  if (look2.where !== "centre") {
    context.globalCompositeOperation = look2.where === "inside" ? "destination-in" : "destination-out";
    context.fill(path3);
  }
  return {
    pixels: { widthPx, heightPx, rgba: canvas2.pixels(), hasTransparency: true },
    marginX: margin / w,
    marginY: margin / h
  };
}
function paintVignette2() {
  const side = 512;
  const rgba = new Uint8ClampedArray(4 * side * side);
  for (let y = 0; y < side; y += 1) {
    for (let x = 0; x < side; x += 1) {
      const away = Math.hypot((2 * x + 1) / side - 1, (2 * y + 1) / side - 1) / Math.SQRT2;
      const share = Math.min(1, Math.max(0, (away - 0.35) / 0.65));
      rgba[4 * (y * side + x) + 3] = Math.floor(255 * 0.85 * share * share * (3 - 2 * share) + dither(x, y));
    }
  }
  return { widthPx: side, heightPx: side, rgba, hasTransparency: true };
}
function white(cover) {
  const rgba = new Uint8ClampedArray(4 * cover.length).fill(255);
  for (let at3 = 0; at3 < cover.length; at3 += 1) rgba[4 * at3 + 3] = Math.round(cover[at3] * 255);
  return rgba;
}
function coverage(path3, size, drawing2, rimPx = 0) {
  const canvas2 = drawing2.open(size.widthPx, size.heightPx);
  canvas2.context.fillStyle = "#ffffff";
  canvas2.context.fill(drawing2.path(path3));
  if (rimPx > 0) {
    canvas2.context.globalCompositeOperation = "destination-out";
    canvas2.context.lineJoin = "round";
    canvas2.context.lineWidth = rimPx;
    canvas2.context.stroke(drawing2.path(path3));
  }
  const pixels = canvas2.pixels();
  return Uint8Array.from({ length: size.widthPx * size.heightPx }, (_, at3) => pixels[4 * at3 + 3]);
}
function shapePath(shape3, w, h) {
  switch (shape3.kind) {
    case "rectangle":
      return shape3.radius ? roundedPath(w, h, shape3.radius * Math.min(w, h)) : null;
    case "ellipse":
      return ellipsePath(w, h);
    case "polygon":
      return ring(shape3.sides, () => 1, w, h);
    case "star":
      return ring(2 * shape3.points, (index) => index % 2 === 0 ? 1 : shape3.depth, w, h);
    case "free":
      return scaledPath(shape3.path, w, h);
  }
}
function edgePath(shape3, w, h) {
  if (!shape3) return `M0 0H${w}V${h}H0Z`;
  if (shape3.kind === "rounded") return roundedPath(w, h, shape3.radius * Math.min(w, h));
  return shape3.kind === "ellipse" ? ellipsePath(w, h) : scaledPath(shape3.path, w, h);
}
function roundedPath(w, h, radius) {
  const r = Math.min(radius, w / 2, h / 2);
  return `M${r} 0H${w - r}A${r} ${r} 0 0 1 ${w} ${r}V${h - r}A${r} ${r} 0 0 1 ${w - r} ${h}H${r}A${r} ${r} 0 0 1 0 ${h - r}V${r}A${r} ${r} 0 0 1 ${r} 0Z`;
}
function ellipsePath(w, h) {
  return `M0 ${h / 2}A${w / 2} ${h / 2} 0 0 1 ${w} ${h / 2}A${w / 2} ${h / 2} 0 0 1 0 ${h / 2}Z`;
}
function ring(corners, radius, w, h) {
  const points = Array.from({ length: corners }, (_, index) => {
    const angle = 2 * Math.PI * index / corners - Math.PI / 2;
    return `${(w / 2 + w / 2 * radius(index) * Math.cos(angle)).toFixed(3)} ${(h / 2 + h / 2 * radius(index) * Math.sin(angle)).toFixed(3)}`;
  });
  return `M${points.join("L")}Z`;
}
function scaledPath(path3, w, h) {
  const [sx, sy] = [w / 100, h / 100];
  return path3.replace(/([a-zA-Z])([^a-zA-Z]*)/g, (_, command, rest) => {
    const numbers = [...rest.matchAll(/-?\d*\.?\d+(?:e[-+]?\d+)?/gi)].map(([text2]) => Number(text2));
    const kind = command.toUpperCase();
    const scaled2 = numbers.map((value, index) => {
      if (kind === "H") return value * sx;
      if (kind === "V") return value * sy;
      if (kind !== "A") return value * (index % 2 === 0 ? sx : sy);
      const place = index % 7;
      return place === 0 || place === 5 ? value * sx : place === 1 || place === 6 ? value * sy : value;
    });
    return command + scaled2.map((value) => Number(value.toFixed(3))).join(" ");
  });
}
function plain2(colour) {
  const value = parsed(colour, 1);
  return () => value;
}
function parsed(colour, opacity) {
  const [r, g, b] = [1, 3, 5].map((at3) => Number.parseInt(colour.slice(at3, at3 + 2), 16));
  return [r, g, b, opacity];
}
function gradientAt2(gradient, w, h) {
  const stops = gradient.stops.map((stop) => ({ at: stop.at, colour: parsed(stop.colour, stop.opacity ?? 1) }));
  const angle = (gradient.angleDegrees ?? 0) * Math.PI / 180;
  const [cos, sin2] = [Math.cos(angle), Math.sin(angle)];
  const reach2 = Math.abs(w * cos) + Math.abs(h * sin2);
  const share = (x, y) => {
    const [dx, dy] = [x - w / 2, y - h / 2];
    if (gradient.kind === "linear") return 0.5 + (dx * cos + dy * sin2) / reach2;
    if (gradient.kind === "radial") return Math.hypot(dx / (w / 2), dy / (h / 2)) / Math.SQRT2;
    const turn2 = (Math.atan2(dx, -dy) - angle) / (2 * Math.PI);
    return turn2 - Math.floor(turn2);
  };
  return (x, y) => {
    const at3 = share(x, y);
    const next = stops.findIndex((stop) => stop.at > at3);
    if (next === 0) return stops[0].colour;
    if (next < 0) return stops.at(-1).colour;
    const [from, to] = [stops[next - 1], stops[next]];
    const part = (at3 - from.at) / (to.at - from.at);
    const a = from.colour[3] + (to.colour[3] - from.colour[3]) * part;
    if (a === 0) return [0, 0, 0, 0];
    const mix = (index) => (from.colour[index] * from.colour[3] * (1 - part) + to.colour[index] * to.colour[3] * part) / a;
    return [mix(0), mix(1), mix(2), a];
  };
}
function dither(x, y) {
  const value = 52.9829189 * ((0.06711056 * x + 583715e-8 * y) % 1);
  return value - Math.floor(value);
}

// src/drawing/plates/gradient-backing.ts
function fillWithGradient(kernels, surface, gradient) {
  const { widthPx, heightPx } = surface;
  const colourAt2 = gradientAt2(gradient, widthPx, heightPx);
  const memory = bytesOf(kernels);
  const luma = (r, g, b) => 0.2126 * r + 0.7152 * g + 0.0722 * b;
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const [r, g, b, a] = colourAt2(x + 0.5, y + 0.5);
      memory[surface.y + y * surface.yStride + x] = 16 + luma(r, g, b) * a * 219 / 255 + dither(x, y);
      if (x % 2 === 1 || y % 2 === 1) continue;
      const [cr, cg, cb, ca] = colourAt2(x + 0.5, y + 1);
      const l = luma(cr, cg, cb);
      const at3 = y / 2 * surface.cStride + x / 2;
      memory[surface.u + at3] = 128 + (cb - l) / 1.8556 * ca * 224 / 255 + dither(x + 37, y);
      memory[surface.v + at3] = 128 + (cr - l) / 1.5748 * ca * 224 / 255 + dither(x, y + 37);
    }
  }
}

// src/drawing/plates/read-cropped.ts
var OVERSAMPLE = 1.3;
var MARGIN_PX = 2;
async function readCropped(reader, assetId2, crop, size) {
  if (!crop) return reader.readPicture(assetId2, size.widthPx, size.heightPx);
  const { quarter, straighten } = partsOfTurn(crop.framing.turnDegrees);
  const onItsSide = Math.abs(quarter) === 90;
  if (Math.abs(straighten) < 1e-6) {
    const part2 = partAround(crop, 0);
    const read2 = await reader.readPicture(
      assetId2,
      onItsSide ? size.heightPx : size.widthPx,
      onItsSide ? size.widthPx : size.heightPx,
      part2
    );
    return quarterTurnedPixels(read2, quarter);
  }
  const part = partAround(crop, MARGIN_PX);
  const wanted = Math.min(1, OVERSAMPLE * size.widthPx / (crop.framing.width * crop.ofWidthPx));
  const scale = Math.max(wanted, 4 / Math.min(part.widthPx, part.heightPx));
  const read = await reader.readPicture(
    assetId2,
    Math.max(2, Math.round(part.widthPx * scale)),
    Math.max(2, Math.round(part.heightPx * scale)),
    part
  );
  return turnedPixels(read, crop, part, size);
}
function partAround({ framing, ofWidthPx, ofHeightPx }, marginPx) {
  const radians = framing.turnDegrees * Math.PI / 180;
  const [cos, sin2] = [Math.abs(Math.cos(radians)), Math.abs(Math.sin(radians))];
  const [w, h] = [framing.width * ofWidthPx, framing.height * ofHeightPx];
  const across = (cos * w + sin2 * h) / 2;
  const down = (sin2 * w + cos * h) / 2;
  const from = (centre2, half, of) => Math.min(of - 1, Math.max(0, Math.floor(centre2 - half + 1e-3 - marginPx)));
  const to = (centre2, half, of, least) => Math.max(least + 1, Math.min(of, Math.ceil(centre2 + half - 1e-3 + marginPx)));
  const [x, y] = [framing.x * ofWidthPx, framing.y * ofHeightPx];
  const [left, top] = [from(x, across, ofWidthPx), from(y, down, ofHeightPx)];
  return {
    left,
    top,
    widthPx: to(x, across, ofWidthPx, left) - left,
    heightPx: to(y, down, ofHeightPx, top) - top,
    ofWidthPx,
    ofHeightPx
  };
}
function quarterTurnedPixels(pixels, quarter) {
  const turn2 = (quarter % 360 + 360) % 360;
  if (turn2 === 0) return pixels;
  const { widthPx: w, heightPx: h } = pixels;
  const [widthPx, heightPx] = turn2 === 180 ? [w, h] : [h, w];
  const aligned = pixels.rgba.byteOffset % 4 === 0 ? pixels.rgba : pixels.rgba.slice();
  const from = new Uint32Array(aligned.buffer, aligned.byteOffset, w * h);
  const to = new Uint32Array(w * h);
  const [start2, right2, down] = turn2 === 180 ? [w * h - 1, -1, -w] : turn2 === 90 ? [w - 1, w, -1] : [(h - 1) * w, -w, 1];
  for (let y = 0; y < heightPx; y += 1) {
    let at3 = start2 + y * down;
    for (let x = 0; x < widthPx; x += 1, at3 += right2) to[y * widthPx + x] = from[at3];
  }
  return { widthPx, heightPx, rgba: new Uint8Array(to.buffer), hasTransparency: pixels.hasTransparency };
}
function turnedPixels(read, { framing, ofWidthPx, ofHeightPx }, part, size) {
  const { widthPx: w, heightPx: h, rgba, hasTransparency: hasTransparency2 } = read;
  const radians = framing.turnDegrees * Math.PI / 180;
  const [cos, sin2] = [Math.cos(radians), Math.sin(radians)];
  const [scaleX, scaleY] = [w / part.widthPx, h / part.heightPx];
  const [stepX, stepY] = [framing.width * ofWidthPx / size.widthPx, framing.height * ofHeightPx / size.heightPx];
  const [centreX, centreY] = [framing.x * ofWidthPx - part.left, framing.y * ofHeightPx - part.top];
  const out2 = new Uint8Array(size.widthPx * size.heightPx * 4);
  for (let y = 0; y < size.heightPx; y += 1) {
    const v = (y + 0.5 - size.heightPx / 2) * stepY;
    for (let x = 0; x < size.widthPx; x += 1) {
      const u = (x + 0.5 - size.widthPx / 2) * stepX;
      const px = Math.min(w - 1, Math.max(0, (centreX + cos * u - sin2 * v) * scaleX - 0.5));
      const py = Math.min(h - 1, Math.max(0, (centreY + sin2 * u + cos * v) * scaleY - 0.5));
      const left = Math.min(w - 2, Math.floor(px));
      const top = Math.min(h - 2, Math.floor(py));
      const [fx, fy] = [px - left, py - top];
      const a = 4 * (top * w + left);
      const b = a + 4 * w;
      const to = 4 * (y * size.widthPx + x);
      if (!hasTransparency2) {
        for (let channel2 = 0; channel2 < 3; channel2 += 1) {
          const upper = rgba[a + channel2] + (rgba[a + 4 + channel2] - rgba[a + channel2]) * fx;
          const under = rgba[b + channel2] + (rgba[b + 4 + channel2] - rgba[b + channel2]) * fx;
          out2[to + channel2] = upper + (under - upper) * fy + 0.5;
        }
        out2[to + 3] = 255;
        continue;
      }
      const weights = [
        rgba[a + 3] * (1 - fx) * (1 - fy),
        rgba[a + 7] * fx * (1 - fy),
        rgba[b + 3] * (1 - fx) * fy,
        rgba[b + 7] * fx * fy
      ];
      const alpha = weights[0] + weights[1] + weights[2] + weights[3];
      out2[to + 3] = alpha + 0.5;
      if (alpha === 0) continue;
      for (let channel2 = 0; channel2 < 3; channel2 += 1) {
        out2[to + channel2] = (rgba[a + channel2] * weights[0] + rgba[a + 4 + channel2] * weights[1] + rgba[b + channel2] * weights[2] + rgba[b + 4 + channel2] * weights[3]) / alpha + 0.5;
      }
    }
  }
  return { widthPx: size.widthPx, heightPx: size.heightPx, rgba: out2, hasTransparency: hasTransparency2 };
}

// src/core/light/running-mean.ts
function smooth(plane2, width, height, sigma) {
  for (const radius of boxRadii(sigma)) {
    if (radius < 1) continue;
    meanOfRows(plane2, width, height, radius);
    meanOfColumns(plane2, width, height, radius);
  }
}
function boxRadii(sigma) {
  const ideal = Math.sqrt(4 * sigma * sigma + 1);
  const lower = Math.max(1, 2 * Math.floor((ideal - 1) / 2) + 1);
  const lowerCount = Math.round((12 * sigma * sigma - 3 * lower * lower - 12 * lower - 9) / (-4 * lower - 4));
  return [0, 1, 2].map((index) => ((index < lowerCount ? lower : lower + 2) - 1) / 2);
}
function meanOfRows(plane2, width, height, radius) {
  const line = new Float32Array(width);
  const share = 1 / (2 * radius + 1);
  for (let y = 0; y < height; y += 1) {
    const start2 = y * width;
    line.set(plane2.subarray(start2, start2 + width));
    const [first, last] = [line[0], line[width - 1]];
    let sum = (radius + 1) * first;
    for (let x = 0; x < radius; x += 1) sum += line[Math.min(width - 1, x)];
    for (let x = 0; x < width; x += 1) {
      sum += (x + radius < width ? line[x + radius] : last) - (x > radius ? line[x - radius - 1] : first);
      plane2[start2 + x] = sum * share;
    }
  }
}
function meanOfColumns(plane2, width, height, radius) {
  const from = plane2.slice();
  const sums = new Float32Array(width);
  const share = 1 / (2 * radius + 1);
  const row = (y) => width * Math.min(height - 1, Math.max(0, y));
  for (let y = -radius - 1; y < radius; y += 1)
    for (let x = 0, at3 = row(y); x < width; x += 1) sums[x] += from[at3 + x];
  for (let y = 0; y < height; y += 1) {
    const [coming2, going, to] = [row(y + radius), row(y - radius - 1), y * width];
    for (let x = 0; x < width; x += 1) {
      sums[x] += from[coming2 + x] - from[going + x];
      plane2[to + x] = sums[x] * share;
    }
  }
}

// src/drawing/plates/printmaking.ts
var { floor, imul, max, min, round, sin, tanh } = Math;
function printmake(rgba, widthPx, heightPx, kind, strength) {
  const shade = SHADES[kind]({ rgba, widthPx, heightPx });
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const at3 = y * widthPx + x;
      const to = shade(at3, x, y);
      for (let channel2 = 0; channel2 < 3; channel2 += 1) {
        const was = rgba[4 * at3 + channel2];
        rgba[4 * at3 + channel2] = was + (to[channel2] - was) * strength;
      }
    }
  }
}
var PAPER2 = [247, 243, 234];
var INK2 = [38, 36, 44];
var step = (low, high, value) => {
  const t = min(1, max(0, (value - low) / (high - low)));
  return t * t * (3 - 2 * t);
};
var between3 = (a, b, share) => [
  a[0] + (b[0] - a[0]) * share,
  a[1] + (b[1] - a[1]) * share,
  a[2] + (b[2] - a[2]) * share
];
function lumaOf(rgba) {
  const luma = new Float32Array(rgba.length / 4);
  for (let at3 = 0; at3 < luma.length; at3 += 1)
    luma[at3] = (0.2126 * rgba[4 * at3] + 0.7152 * rgba[4 * at3 + 1] + 0.0722 * rgba[4 * at3 + 2]) / 255;
  return luma;
}
function smoothed(plane2, { widthPx, heightPx }, sigma) {
  const out2 = plane2.slice();
  smooth(out2, widthPx, heightPx, max(0.6, sigma));
  return out2;
}
function lines(luma, source, { reach: reach2, sharpness, at: threshold, softness }) {
  const fine = smoothed(luma, source, reach2 * source.widthPx);
  const wide = smoothed(luma, source, 1.6 * reach2 * source.widthPx);
  const ink = new Float32Array(luma.length);
  for (let at3 = 0; at3 < luma.length; at3 += 1) {
    const value = fine[at3] + sharpness * (fine[at3] - wide[at3]);
    ink[at3] = value >= threshold ? 0 : -tanh((value - threshold) / softness);
  }
  return ink;
}
function evened(luma, source) {
  const wide = smoothed(luma, source, source.widthPx / 12);
  const counts = new Uint32Array(256);
  for (let at3 = 0; at3 < luma.length; at3 += 1) counts[round(255 * luma[at3])] += 1;
  const level = (share) => {
    let sum = 0;
    for (let value = 0; value < 256; value += 1) if ((sum += counts[value]) >= share * luma.length) return value / 255;
    return 1;
  };
  const [black, white2] = [level(0.02), level(0.98)];
  const range2 = max(0.25, white2 - black);
  const out2 = new Float32Array(luma.length);
  for (let at3 = 0; at3 < luma.length; at3 += 1) {
    const own = (luma[at3] - black) / range2;
    const around2 = (wide[at3] - black) / range2;
    out2[at3] = min(1, max(0, own + 0.35 * (0.5 - around2)));
  }
  return out2;
}
function paper(x, y, widthPx, cells2) {
  const [px, py] = [x / widthPx * cells2, y / widthPx * cells2];
  const [ix, iy] = [floor(px), floor(py)];
  const [fx, fy] = [px - ix, py - iy];
  const [sx, sy] = [fx * fx * (3 - 2 * fx), fy * fy * (3 - 2 * fy)];
  const above = dealt2(ix, iy) + (dealt2(ix + 1, iy) - dealt2(ix, iy)) * sx;
  const below = dealt2(ix, iy + 1) + (dealt2(ix + 1, iy + 1) - dealt2(ix, iy + 1)) * sx;
  return above + (below - above) * sy;
}
function dealt2(x, y) {
  let hash = imul(x, 668265261) ^ imul(y, 374761393);
  hash = imul(hash ^ hash >>> 15, 739982445);
  hash = imul(hash ^ hash >>> 12, 695872825);
  return ((hash ^ hash >>> 15) >>> 0) / 2147483648 - 1;
}
function flattened({ rgba, widthPx, heightPx }, reach2) {
  const radius = max(1, round(reach2 * widthPx));
  const stride = widthPx + 1;
  const tables = [0, 1, 2, 3].map(() => new Float64Array(stride * (heightPx + 1)));
  for (let y = 0; y < heightPx; y += 1) {
    const row = [0, 0, 0, 0];
    for (let x = 0; x < widthPx; x += 1) {
      const at3 = 4 * (y * widthPx + x);
      const [r, g, b] = [rgba[at3] / 255, rgba[at3 + 1] / 255, rgba[at3 + 2] / 255];
      const to = (y + 1) * stride + x + 1;
      row[0] += r;
      row[1] += g;
      row[2] += b;
      row[3] += r * r + g * g + b * b;
      for (let table = 0; table < 4; table += 1) tables[table][to] = tables[table][to - stride] + row[table];
    }
  }
  const [reds, greens, blues, squares] = tables;
  const out2 = [0, 1, 2].map(() => new Float32Array(widthPx * heightPx));
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      let [weights, r, g, b] = [0, 0, 0, 0];
      for (let square = 0; square < 4; square += 1) {
        const left = max(0, square & 1 ? x : x - radius);
        const right2 = min(widthPx, 1 + (square & 1 ? x + radius : x));
        const top = max(0, square & 2 ? y : y - radius);
        const bottom2 = min(heightPx, 1 + (square & 2 ? y + radius : y));
        const [a, c2, d, e] = [
          top * stride + left,
          top * stride + right2,
          bottom2 * stride + left,
          bottom2 * stride + right2
        ];
        const count = 1 / ((right2 - left) * (bottom2 - top));
        const mr = (reds[e] - reds[d] - reds[c2] + reds[a]) * count;
        const mg = (greens[e] - greens[d] - greens[c2] + greens[a]) * count;
        const mb = (blues[e] - blues[d] - blues[c2] + blues[a]) * count;
        const spread2 = (squares[e] - squares[d] - squares[c2] + squares[a]) * count - mr * mr - mg * mg - mb * mb;
        const evenness = 1 / (1e-4 + max(0, spread2));
        const weight = evenness * evenness;
        weights += weight;
        r += weight * mr;
        g += weight * mg;
        b += weight * mb;
      }
      const at3 = y * widthPx + x;
      out2[0][at3] = r / weights;
      out2[1][at3] = g / weights;
      out2[2][at3] = b / weights;
    }
  }
  return out2;
}
var lumaOfColours = ([r, g, b]) => r.map((red, at3) => 0.2126 * red + 0.7152 * g[at3] + 0.0722 * b[at3]);
var SHADES = {
  // A pencil leaves what is darker than its surroundings: the picture divided by its blurred self, with hatching in the shadows.
  pencil(source) {
    const { rgba, widthPx } = source;
    const luma = lumaOf(rgba);
    const soft = smoothed(luma, source, widthPx / 140);
    return (at3, x, y) => {
      const line = min(1, (luma[at3] + 0.02) / (soft[at3] + 0.02));
      const hatch = 0.5 + 0.5 * sin((x + 0.8 * y) / widthPx * 900 + 2 * paper(x, y, widthPx, 230));
      const shadow = step(0.55, 0.1, soft[at3]) * (0.25 + 0.35 * hatch);
      const dark = min(1, max(0, 1 - line ** 3 + shadow + 0.06 * paper(x, y, widthPx, 1400) * shadow));
      return between3(PAPER2, [62, 60, 62], dark);
    };
  },
  // Three washes of thinned ink with soft borders, darker where a wash dries.
  "ink-wash"(source) {
    const { rgba, widthPx } = source;
    const luma = smoothed(lumaOf(rgba), source, widthPx / 420);
    const wide = smoothed(luma, source, widthPx / 130);
    return (at3, x, y) => {
      const value = luma[at3] + 0.01 * paper(x, y, widthPx, 350);
      const wash = 0.3 * step(0.72, 0.62, value) + 0.3 * step(0.46, 0.37, value) + 0.32 * step(0.24, 0.15, value);
      const rim = 2.2 * max(0, wide[at3] - luma[at3]);
      return between3(PAPER2, [32, 42, 62], min(1, wash + rim));
    };
  },
  // Ink and paper and nothing between: lines and darks are left standing, middle tones are cut in strokes that grow broader with the light, lights are cut away.
  linocut(source) {
    const { rgba, widthPx } = source;
    const tone = evened(lumaOf(rgba), source);
    const line = lines(tone, source, { reach: 1 / 900, sharpness: 14, at: 0.36, softness: 0.04 });
    const soft = smoothed(tone, source, widthPx / 320);
    return (at3, x, y) => {
      const stroke = sin((0.78 * x + y) / widthPx * 620 + 1.6 * paper(x, y, widthPx, 14));
      const hatch = stroke > 3.4 * (soft[at3] - 0.16) - 0.62 ? step(0.64, 0.6, soft[at3]) : 0;
      return between3(PAPER2, INK2, max(step(0.35, 0.65, line[at3]), hatch));
    };
  },
  // Pigment in water: colours flat within areas whose borders waver, darker where they dried and where the paper is low, the lightest left as paper.
  watercolour(source) {
    const { widthPx, heightPx } = source;
    const colours = flattened(source, 1 / 210);
    const luma = lumaOfColours(colours);
    const soft = smoothed(luma, source, widthPx / 500);
    const wide = smoothed(luma, source, widthPx / 110);
    return (_at, x, y) => {
      const waver = widthPx / 620;
      const fromX = round(x + waver * paper(x, y, widthPx, 90) + 0.5 * waver * paper(x, y, widthPx, 260));
      const fromY = round(y + waver * paper(x + 999, y, widthPx, 90) + 0.5 * waver * paper(x + 999, y, widthPx, 260));
      const at3 = min(heightPx - 1, max(0, fromY)) * widthPx + min(widthPx - 1, max(0, fromX));
      const value = luma[at3];
      const pooled = 1.3 * step(0.015, 0.12, wide[at3] - soft[at3]);
      const clouds = 0.28 * paper(x, y, widthPx, 9) + 0.16 * paper(x, y, widthPx, 31);
      const grain = 0.2 * paper(x, y, widthPx, 420) + 0.1 * paper(x, y, widthPx, 900);
      const density = max(0, 1 + pooled + clouds + grain);
      const light = (channel2) => {
        const vivid = min(1, max(0, value + 1.25 * (channel2[at3] - value)));
        const lifted = 0.16 + 0.84 * vivid;
        return min(1, max(0, lifted - (density - 1) * lifted * (1 - lifted)));
      };
      const bare = step(0.86, 0.97, value);
      const tint = (channel2, sheet) => {
        const painted = light(channel2) * sheet;
        return painted + (sheet * (1 - 0.02 * grain) - painted) * bare;
      };
      return [tint(colours[0], PAPER2[0]), tint(colours[1], PAPER2[1]), tint(colours[2], PAPER2[2])];
    };
  },
  // Few flat, strong colours, and lines where things end.
  poster(source) {
    const { rgba } = source;
    const colours = flattened(source, 1 / 380);
    const luma = lumaOfColours(colours);
    const line = lines(lumaOf(rgba), source, { reach: 1 / 1300, sharpness: 16, at: 0.1, softness: 0.06 });
    const LEVELS = 5;
    return (at3) => {
      const value = luma[at3];
      const place = min(LEVELS - 0.01, value * LEVELS);
      const level = (floor(place) + step(0.4, 0.6, place - floor(place))) / LEVELS;
      const left = 1 - 0.92 * step(0.2, 0.7, line[at3]);
      const tint = (channel2) => 255 * min(1, max(0, level + 1.55 * (channel2[at3] - value))) * left;
      return [tint(colours[0]), tint(colours[1]), tint(colours[2])];
    };
  }
};

// src/drawing/plates/still-effects.ts
function applyStillEffects(pixels, light) {
  if (light.sharpen === 0 && !light.print && light.redEyes.length === 0) return pixels;
  const rgba = Uint8ClampedArray.from(pixels.rgba);
  const { widthPx, heightPx } = pixels;
  for (const spot of light.redEyes) darkenRedEye(rgba, widthPx, heightPx, spot);
  if (light.sharpen > 0) sharpen(rgba, widthPx, heightPx, light.sharpen);
  if (light.print && light.print.strength > 0)
    printmake(rgba, widthPx, heightPx, light.print.kind, light.print.strength);
  return { ...pixels, rgba };
}
function darkenRedEye(rgba, widthPx, heightPx, spot) {
  const [cx, cy, radius] = [spot.x * widthPx, spot.y * heightPx, spot.radius * widthPx];
  for (let y = Math.max(0, Math.floor(cy - radius)); y < Math.min(heightPx, cy + radius); y += 1) {
    for (let x = Math.max(0, Math.floor(cx - radius)); x < Math.min(widthPx, cx + radius); x += 1) {
      const away = Math.hypot(x + 0.5 - cx, y + 0.5 - cy) / radius;
      if (away >= 1) continue;
      const at3 = 4 * (y * widthPx + x);
      const [r, g, b] = [rgba[at3], rgba[at3 + 1], rgba[at3 + 2]];
      const other = (g + b) / 2;
      const redness = Math.min(1, Math.max(0, (r - 1.3 * other - 10) / 40));
      const share = redness * Math.min(1, 3 * (1 - away));
      rgba[at3] = r + (other * 0.8 - r) * share;
      rgba[at3 + 1] = g + (g * 0.9 - g) * share;
      rgba[at3 + 2] = b + (b * 0.9 - b) * share;
    }
  }
}
function sharpen(rgba, widthPx, heightPx, amount) {
  const luma = lumaOf(rgba);
  const soft = luma.slice();
  blur(soft, widthPx, heightPx, Math.max(0.4, widthPx / 1300));
  for (let at3 = 0; at3 < luma.length; at3 += 1) {
    const by = 255 * 1.6 * amount * (luma[at3] - soft[at3]);
    for (let channel2 = 0; channel2 < 3; channel2 += 1) rgba[4 * at3 + channel2] = rgba[4 * at3 + channel2] + by;
  }
}

// src/drawing/plates/wipe-maps.ts
var LAST = 32767;
function wipeMap(look2, { widthPx: w, heightPx: h }) {
  if (look2.kind === "pattern") return evened2(filled(w, h, patternAt(look2.pattern, w / h)), look2.inverted);
  return spread(filled(w, h, whenAt(look2, w, h)));
}
function mapOfPicture(rgba, { widthPx: w, heightPx: h }, inverted) {
  const values = Float32Array.from(
    { length: w * h },
    (_, at3) => 0.2126 * rgba[4 * at3] + 0.7152 * rgba[4 * at3 + 1] + 0.0722 * rgba[4 * at3 + 2]
  );
  return evened2(values, inverted);
}
function filled(w, h, at3) {
  const out2 = new Float32Array(w * h);
  for (let y = 0; y < h; y += 1) for (let x = 0; x < w; x += 1) out2[y * w + x] = at3((x + 0.5) / w, (y + 0.5) / h);
  return out2;
}
function spread(values) {
  let [least, most] = [Infinity, -Infinity];
  for (const value of values) {
    if (value < least) least = value;
    if (value > most) most = value;
  }
  const scale = most > least ? LAST / (most - least) : 0;
  return Int16Array.from(values, (value) => Math.round((value - least) * scale));
}
function evened2(values, inverted) {
  const steps = 4096;
  const fine = spread(values);
  const counts = new Float64Array(steps + 1);
  for (const value of fine) counts[Math.floor(value * steps / (LAST + 1)) + 1] += 1;
  for (let step2 = 1; step2 <= steps; step2 += 1) counts[step2] += counts[step2 - 1];
  return Int16Array.from(fine, (value) => {
    const place = value * steps / (LAST + 1);
    const step2 = Math.floor(place);
    const rank = (counts[step2] + (counts[step2 + 1] - counts[step2]) * (place - step2)) / fine.length;
    return Math.round((inverted ? 1 - rank : rank) * LAST);
  });
}
function whenAt(look2, w, h) {
  const aspect = w / h;
  switch (look2.kind) {
    case "wipe": {
      const across = look2.direction.includes("right") ? 1 : look2.direction.includes("left") ? -1 : 0;
      const down = look2.direction.includes("down") ? 1 : look2.direction.includes("up") ? -1 : 0;
      return (x, y) => across * x * (down === 0 ? 1 : aspect) + down * y;
    }
    case "clock": {
      const sense = look2.direction === "clockwise" ? 1 : -1;
      return (x, y) => {
        const turn2 = Math.atan2(sense * (x - 0.5) * aspect, 0.5 - y) / (2 * Math.PI);
        return turn2 < 0 ? turn2 + 1 : turn2;
      };
    }
    case "iris": {
      const sense = look2.direction === "open" ? 1 : -1;
      return (x, y) => {
        const [dx, dy] = [(x - 0.5) * aspect, y - 0.5];
        if (look2.shape === "circle") return sense * Math.hypot(dx, dy);
        if (look2.shape === "diamond") return sense * (Math.abs(dx) + Math.abs(dy));
        if (look2.shape === "square") return sense * Math.max(Math.abs(dx), Math.abs(dy));
        const part = 2 * Math.PI / 5;
        const angle = Math.atan2(dx, -dy);
        const off = Math.abs(angle - part * Math.round(angle / part));
        const [tip, inner] = [1, 0.42];
        const notch = { x: inner * Math.sin(part / 2), y: inner * Math.cos(part / 2) };
        const r = Math.hypot(dx, dy);
        const edge = tip * notch.x / ((tip - notch.y) * Math.sin(off) + notch.x * Math.cos(off));
        return sense * r / edge;
      };
    }
    case "blinds": {
      const share = (value) => value * look2.count % 1;
      return (x, y) => look2.direction === "right" ? share(x) : look2.direction === "left" ? 1 - share(x) : look2.direction === "down" ? share(y) : 1 - share(y);
    }
    case "checks": {
      const rows3 = look2.count;
      const columns2 = Math.max(1, Math.round(look2.count * aspect));
      return (x, y) => {
        const [column2, row] = [
          Math.min(columns2 - 1, Math.floor(x * columns2)),
          Math.min(rows3 - 1, Math.floor(y * rows3))
        ];
        const off = Math.max(Math.abs(x * columns2 - column2 - 0.5), Math.abs(y * rows3 - row - 0.5));
        return 0.75 * seedOf(`${look2.seed} ${column2} ${row}`, 5) + 0.25 * 2 * off;
      };
    }
  }
}
function patternAt(name, aspect) {
  const noise = (x, y, salt) => smoothNoise(x, y, salt);
  const cloud = (x, y, salt) => noise(x, y, salt) + 0.5 * noise(2.1 * x, 2.1 * y, salt + 1) + 0.25 * noise(4.3 * x, 4.3 * y, salt + 2) + 0.12 * noise(8.7 * x, 8.7 * y, salt + 3);
  switch (name) {
    case "clouds":
      return (x, y) => cloud(3 * x * aspect, 3 * y, 1);
    case "brush":
      return (x, y) => Math.floor(7 * y) + 0.9 * (Math.floor(7 * y) % 2 === 0 ? x : 1 - x) + 0.16 * cloud(1.2 * x * aspect, 60 * y, 11);
    case "rain":
      return (x, y) => y + 0.55 * noise(46 * x * aspect, 0.6, 21) + 0.2 * noise(14 * x * aspect, 1.7 * y, 22);
    case "ripples":
      return (x, y) => {
        const r = Math.hypot((x - 0.5) * aspect, y - 0.5);
        return r + 0.09 * Math.sin(38 * r) + 0.05 * cloud(4 * x * aspect, 4 * y, 31);
      };
    case "spiral":
      return (x, y) => {
        const [dx, dy] = [(x - 0.5) * aspect, y - 0.5];
        const turn2 = Math.atan2(dy, dx) / (2 * Math.PI);
        return 3 * Math.hypot(dx, dy) + ((turn2 + 3 * Math.hypot(dx, dy)) % 1 + 1) % 1;
      };
    case "shards":
      return (x, y) => nearestSeed(x * aspect, y, 7);
  }
}
function smoothNoise(x, y, salt) {
  const [x0, y0] = [Math.floor(x), Math.floor(y)];
  const ease = (t) => t * t * (3 - 2 * t);
  const [u, v] = [ease(x - x0), ease(y - y0)];
  const at3 = (i, j) => 2 * lattice(i, j, salt) - 1;
  const top = at3(x0, y0) + (at3(x0 + 1, y0) - at3(x0, y0)) * u;
  const low = at3(x0, y0 + 1) + (at3(x0 + 1, y0 + 1) - at3(x0, y0 + 1)) * u;
  return top + (low - top) * v;
}
function lattice(i, j, salt) {
  let hash = Math.imul(i, 668265261) ^ Math.imul(j, 374761393) ^ Math.imul(salt, 2654435761);
  hash = Math.imul(hash ^ hash >>> 15, 2246822507);
  hash = Math.imul(hash ^ hash >>> 13, 3266489909);
  return ((hash ^ hash >>> 16) >>> 0) / 4294967296;
}
function nearestSeed(x, y, perUnit) {
  const [i, j] = [Math.floor(x * perUnit), Math.floor(y * perUnit)];
  let [nearest2, turn2] = [Infinity, 0];
  for (let di = -1; di <= 1; di += 1)
    for (let dj = -1; dj <= 1; dj += 1) {
      const [sx, sy] = [i + di + lattice(i + di, j + dj, 41), j + dj + lattice(i + di, j + dj, 42)];
      const away = Math.hypot(x * perUnit - sx, y * perUnit - sy);
      if (away < nearest2) [nearest2, turn2] = [away, lattice(i + di, j + dj, 43)];
    }
  return 3 * turn2 + 0.6 * nearest2;
}

// src/drawing/plates/make-plate.ts
async function makePlate(parts, plate) {
  const { kernels, reader, drawing2d: drawing2d2 } = parts;
  const planes = (pixels) => ({ kind: "planes", planes: planesFromPixels(kernels, pixels) });
  switch (plate.kind) {
    case "picture":
      return { kind: "planes", planes: await litPicture(parts, plate) };
    case "clip": {
      const read = await reader.readClipFrame(plate.assetId, plate.clipFrame, plate.size.widthPx, plate.size.heightPx);
      return {
        kind: "planes",
        planes: "rgba" in read ? planesFromPixels(kernels, read) : planesFromDecodedFrame(kernels, read)
      };
    }
    case "words": {
      const drawn = await drawWords(plate.look, parts.fonts, drawing2d2, plate.frame);
      if (!drawn) return { kind: "nothing" };
      const pieces = drawn.pieces.map(({ pixels, ...place }) => ({
        ...place,
        planes: planesFromPixels(kernels, pixels)
      }));
      return {
        kind: "words",
        pieces,
        counts: drawn.counts,
        scale: drawn.scale,
        block: { topPx: drawn.topPx, heightPx: drawn.heightPx, leftPx: drawn.leftPx, widthPx: drawn.widthPx }
      };
    }
    case "painted":
      return planes(paintShape(plate.shape, plate.fill, plate.bitmap, drawing2d2));
    case "stencil":
      return planes(paintStencil(plate.look, drawing2d2));
    case "outline": {
      const { pixels, marginX, marginY } = paintOutline2(plate.look, drawing2d2);
      return { kind: "outline", planes: planesFromPixels(kernels, pixels), marginX, marginY };
    }
    case "vignette":
      return planes(paintVignette2());
    case "gradient": {
      const surface = createSurface(kernels, plate.frame.widthPx, plate.frame.heightPx);
      fillWithGradient(kernels, surface, plate.gradient);
      return { kind: "planes", planes: surface };
    }
    case "blurred": {
      const widthPx = Math.min(960, Math.max(BACKING_SOURCE_WIDTH_PX, Math.round(4 / Math.max(4e-3, plate.amount))));
      const heightPx = Math.max(2, Math.round(widthPx / plate.aspect));
      const pixels = plate.isClip ? rgbaOf(await reader.readClipFrame(plate.assetId, 0, widthPx, heightPx)) : await readCropped(reader, plate.assetId, plate.crop, { widthPx, heightPx });
      const surface = createSurface(kernels, plate.frame.widthPx, plate.frame.heightPx);
      fillWithBlur(kernels, surface, pixels, plate);
      return { kind: "planes", planes: surface };
    }
    case "wipe-map": {
      const { look: look2, frame } = plate;
      if (look2.kind !== "own-pattern") return placedMap(kernels, wipeMap(look2, frame), frame.widthPx, frame.heightPx);
      const pixels = await reader.readPicture(look2.assetId, frame.widthPx, frame.heightPx);
      return placedMap(kernels, mapOfPicture(pixels.rgba, frame, look2.inverted), frame.widthPx, frame.heightPx);
    }
  }
}
async function litPicture({ kernels, reader }, plate) {
  const read = await readCropped(reader, plate.assetId, plate.crop, plate.size);
  const { light } = plate;
  if (!light) return planesFromPixels(kernels, read);
  const pixels = applyStillEffects(read, light);
  const planes = planesFromPixels(kernels, pixels);
  if (JSON.stringify(light.values) === JSON.stringify(NEUTRAL)) return planes;
  if (planes.alpha === 0) {
    lightPicture(kernels, planes, planes, light.values);
  } else {
    const bare = planesFromPixels(kernels, { ...pixels, hasTransparency: false });
    lightPicture(kernels, bare, bare, light.values);
    const [w, h, cw2, ch2] = [planes.widthPx, planes.heightPx, planes.widthPx + 1 >> 1, planes.heightPx + 1 >> 1];
    for (let row = 0; row < h; row += 1)
      kernels.copyBytes(planes.y + row * planes.yStride, bare.y + row * bare.yStride, w);
    for (let row = 0; row < ch2; row += 1) {
      kernels.copyBytes(planes.u + row * planes.cStride, bare.u + row * bare.cStride, cw2);
      kernels.copyBytes(planes.v + row * planes.cStride, bare.v + row * bare.cStride, cw2);
    }
    kernels.scalePlane(planes.y, planes.yStride, planes.alpha, planes.yStride, w, h);
    kernels.scalePlane(planes.u, planes.cStride, planes.halfAlpha, planes.cStride, cw2, ch2);
    kernels.scalePlane(planes.v, planes.cStride, planes.halfAlpha, planes.cStride, cw2, ch2);
    releasePlanes(kernels, bare);
  }
  padPlanes(kernels, planes);
  return planes;
}
function placedMap(kernels, map, widthPx, heightPx) {
  const stride = widthPx + 31 & ~15;
  const halfStride = widthPx / 2 + 31 & ~15;
  const byteCount = 2 * (stride * heightPx + halfStride * heightPx / 2);
  const at3 = kernels.allocate(byteCount);
  const half = at3 + 2 * stride * heightPx;
  const memory = new Int16Array(bytesOf(kernels).buffer);
  for (let row = 0; row < heightPx; row += 1)
    memory.set(map.subarray(row * widthPx, (row + 1) * widthPx), at3 / 2 + row * stride);
  for (let row = 0; row < heightPx / 2; row += 1) {
    for (let x = 0; x < widthPx / 2; x += 1)
      memory[half / 2 + row * halfStride + x] = map[2 * row * widthPx + 2 * x] + map[(2 * row + 1) * widthPx + 2 * x] + 1 >> 1;
  }
  return { kind: "wipe-map", map: at3, stride, half, halfStride, byteCount };
}
function rgbaOf(read) {
  if ("rgba" in read) return read;
  const { widthPx, heightPx, i420 } = read;
  const rgba = new Uint8ClampedArray(widthPx * heightPx * 4);
  const cWidth = widthPx + 1 >> 1;
  const uAt = widthPx * heightPx;
  const vAt = uAt + cWidth * (heightPx + 1 >> 1);
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const luma = 1.16438 * (i420[y * widthPx + x] - 16);
      const u = i420[uAt + (y >> 1) * cWidth + (x >> 1)] - 128;
      const v = i420[vAt + (y >> 1) * cWidth + (x >> 1)] - 128;
      rgba.set([luma + 1.79274 * v, luma - 0.21325 * u - 0.53291 * v, luma + 2.1124 * u, 255], 4 * (y * widthPx + x));
    }
  }
  return { widthPx, heightPx, rgba, hasTransparency: false };
}

// src/drawing/plates/carried-plate.ts
function blocksOf(made2) {
  switch (made2.kind) {
    case "planes":
    case "outline":
      return [{ at: made2.planes.block, byteCount: made2.planes.byteCount }];
    case "words":
      return made2.pieces.map(({ planes }) => ({ at: planes.block, byteCount: planes.byteCount }));
    case "wipe-map":
      return [{ at: made2.map, byteCount: made2.byteCount }];
    case "nothing":
      return [];
  }
}

// src/drawing/plates/plate-store.ts
function createPlateStore({ kernels, make, roomBytes }) {
  const kept3 = /* @__PURE__ */ new Map();
  const underWay = /* @__PURE__ */ new Map();
  const problems = /* @__PURE__ */ new Map();
  const transparent = /* @__PURE__ */ new Set();
  let closed = false;
  const isTransparent = (id) => transparent.has(id);
  const wanted = (plan) => platesOf(plan, isTransparent).map((plate) => ({ plate, key: keyOf(plate) }));
  return {
    async prepare(plan) {
      const needed = wanted(plan);
      await Promise.all(needed.map(({ key: key2, plate }) => fetch(key2, plate)));
      const again = wanted(plan).filter(({ key: key2 }) => !kept3.has(key2));
      await Promise.all(again.map(({ key: key2, plate }) => fetch(key2, plate)));
      makeRoom(new Set([...needed, ...again].map(({ key: key2 }) => key2)));
    },
    isReady: (plan) => wanted(plan).every(({ key: key2 }) => kept3.has(key2)),
    made(plate, kind) {
      const found = touch(keyOf(plate));
      return found?.kind === kind ? found : null;
    },
    isTransparent,
    problems: () => problems,
    close() {
      closed = true;
      for (const entry of kept3.values()) letGo(entry);
      kept3.clear();
    }
  };
  function touch(key2) {
    const found = kept3.get(key2);
    if (found) {
      kept3.delete(key2);
      kept3.set(key2, found);
    }
    return found;
  }
  async function fetch(key2, plate) {
    if (touch(key2)) return;
    const running = underWay.get(key2);
    if (running) return running;
    const started = guarded(plate).then((made2) => {
      if (closed) return letGo(made2);
      kept3.set(key2, made2);
    }).finally(() => underWay.delete(key2));
    underWay.set(key2, started);
    return started;
  }
  async function guarded(plate) {
    try {
      const made2 = await make(plate);
      if (plate.kind === "picture" && made2.kind === "planes" && made2.planes.alpha !== 0) transparent.add(plate.assetId);
      return made2;
    } catch (error) {
      const known = error instanceof Error ? error : new Error(String(error));
      const assetId2 = "assetId" in plate ? plate.assetId : plate.kind === "wipe-map" && plate.look.kind === "own-pattern" ? plate.look.assetId : null;
      if (!assetId2) throw known;
      problems.set(assetId2, known);
      return { kind: "nothing" };
    }
  }
  function makeRoom(needed) {
    let usedBytes = 0;
    for (const entry of kept3.values()) usedBytes += sizeOf2(entry);
    for (const [key2, entry] of kept3) {
      if (usedBytes <= roomBytes) return;
      if (needed.has(key2) || sizeOf2(entry) === 0) continue;
      kept3.delete(key2);
      usedBytes -= sizeOf2(entry);
      letGo(entry);
    }
  }
  function letGo(entry) {
    for (const block of blocksOf(entry)) kernels.release(block.at);
  }
}
function sizeOf2(entry) {
  return blocksOf(entry).reduce((sum, { byteCount }) => sum + byteCount, 0);
}

// src/server/films/glimpse.ts
import sharp5 from "sharp";

// src/server/films/draw-segment.ts
var ROOM_BYTES = 160 * 1024 * 1024;
function storeFor(drawing2, reader, roomBytes = ROOM_BYTES) {
  return createPlateStore({
    kernels: drawing2.kernels,
    make: (plate) => makePlate({ ...drawing2, reader }, plate),
    roomBytes
  });
}

// src/server/films/node-drawing.ts
import { readFile as readFile4 } from "node:fs/promises";
import { createCanvas, Path2D as CanvasPath } from "@napi-rs/canvas";

// src/drawing/words/fonts.ts
import { Blob, Face, Font, Variation } from "harfbuzzjs";
var STANDING_IN = [
  "instrument",
  "plain",
  "arabic",
  "hebrew",
  "devanagari",
  "thai",
  "chinese",
  "korean",
  "traditional-chinese",
  "emoji"
];
function createFontShelf(files2, read) {
  const faces = /* @__PURE__ */ new Map();
  const fonts = /* @__PURE__ */ new Map();
  return {
    async chainFor(family, weight, text2) {
      const codes = (of) => new Set(of.flatMap((part) => [...part.text]).map((sign) => sign.codePointAt(0)));
      const parts = emojiParts(text2);
      const open2 = codes(parts.filter((part) => !part.isEmoji));
      const chain = [];
      for (const name of [family, ...STANDING_IN.filter((one) => one !== family)]) {
        for (const file of files2) {
          if (file.family !== name) continue;
          const first = name === family && chain.length === 0;
          const might = [...open2].some((code) => code > 32 && covers(file, code));
          const pictures = name === "emoji" && parts.some((part) => part.isEmoji);
          if (!first && !might && !pictures) continue;
          const found = await fontOf(file, weight);
          const has2 = [...open2].filter((code) => found.font.nominalGlyph(code));
          if (!first && !pictures && has2.length === 0) continue;
          chain.push(found);
          for (const code of has2) open2.delete(code);
        }
      }
      return chain;
    }
  };
  function fontOf(file, weight) {
    const key2 = `${file.file} ${file.variable ? weight : ""}`;
    const known = fonts.get(key2);
    if (known) return known;
    const made2 = faceOf(file).then((face) => {
      const font = new Font(face);
      if (file.variable) font.setVariations([new Variation("wght", weight)]);
      return { font, isEmoji: file.family === "emoji" };
    });
    fonts.set(key2, made2);
    made2.catch(() => fonts.delete(key2));
    return made2;
  }
  function faceOf(file) {
    const known = faces.get(file.file);
    if (known) return known;
    const made2 = read(file.file).then((bytes) => new Face(new Blob(bytes)));
    faces.set(file.file, made2);
    made2.catch(() => faces.delete(file.file));
    return made2;
  }
}
function covers(file, code) {
  return file.ranges.some(([from, to]) => code >= from && code <= to);
}

// src/server/films/node-drawing.ts
async function openNodeDrawing() {
  const [wasm, index] = await Promise.all([readFile4(kernelsFile()), readFile4(fontIndexFile(), "utf8")]);
  const files2 = JSON.parse(index);
  return {
    kernels: await loadKernels(new Uint8Array(wasm)),
    fonts: createFontShelf(files2, async (name) => new Uint8Array(await readFile4(fontFile(name)))),
    drawing2d
  };
}
var drawing2d = {
  open(widthPx, heightPx) {
    const canvas2 = createCanvas(widthPx, heightPx);
    const context = canvas2.getContext("2d");
    return {
      context,
      image: canvas2,
      pixels: () => context.getImageData(0, 0, widthPx, heightPx).data
    };
  },
  path: (svg) => new CanvasPath(svg)
};

// src/server/assets/look-at-file.ts
import { stat as stat4 } from "node:fs/promises";
import { fileTypeFromFile } from "file-type";

// src/core/sound/peaks.ts
var PEAKS_PER_SECOND = 50;
function peakCollector(sampleRate) {
  const values = [];
  let counted2 = 0;
  let loudest = 0;
  return {
    add(samples) {
      for (const sample of samples) {
        loudest = Math.max(loudest, Math.abs(sample));
        counted2 += 1;
        if (counted2 >= (values.length + 1) * sampleRate / PEAKS_PER_SECOND) flush();
      }
    },
    finish() {
      if (counted2 > values.length * sampleRate / PEAKS_PER_SECOND) flush();
      return { peaksPerSecond: PEAKS_PER_SECOND, values: Uint8Array.from(values) };
    }
  };
  function flush() {
    values.push(Math.min(255, Math.round(loudest * 255)));
    loudest = 0;
  }
}

// src/server/assets/listen.ts
var LISTENING_RATE = 11025;
async function listen(file, signal) {
  const running = startFfmpeg(
    [...GUARDED_INPUT, "-i", file, "-map", "0:a:0", "-ac", "1", "-ar", String(LISTENING_RATE), "-f", "f32le", "-"],
    signal
  );
  running.process.stdin.end();
  const collector = peakCollector(LISTENING_RATE);
  let sampleCount = 0;
  let left = Buffer.alloc(0);
  try {
    for await (const chunk of running.process.stdout) {
      const bytes = left.length > 0 ? Buffer.concat([left, chunk]) : chunk;
      const count = bytes.length >> 2;
      collector.add(new Float32Array(Uint8Array.from(bytes.subarray(0, count * 4)).buffer));
      left = bytes.subarray(count * 4);
      sampleCount += count;
    }
    await running.finished;
  } catch (cause) {
    if (cause instanceof FfmpegError && cause.details !== "")
      throw new UnusableFileError(
        "The sound cannot be read; the file is damaged. Export it again as MP3, M4A, WAV, FLAC, OGG or Opus.",
        { cause }
      );
    throw cause;
  }
  if (sampleCount === 0) throw new UnusableFileError("The file holds no sound.");
  const tags = lowerCased((await probe(file)).format.tags ?? {});
  return {
    lengthMs: sampleCount * 1e3 / LISTENING_RATE,
    peaks: collector.finish(),
    title: tags.title ?? null,
    artist: tags.artist ?? null
  };
}
function lowerCased(tags) {
  return Object.fromEntries(Object.entries(tags).map(([name, value]) => [name.toLowerCase(), value.slice(0, 200)]));
}

// src/server/assets/look-at-clip.ts
var SUSPICIOUS = { lengthMs: 6e4, bytesASecond: 4e3 };
var SLOWEST_MS = 4e3;
async function lookAtClip(file, byteCount) {
  const found = await probed(file);
  const picture2 = found.streams.find((stream) => stream.codec_type === "video" && !stream.disposition?.attached_pic);
  const lengthMs = Math.floor(Number(picture2?.duration ?? found.format.duration ?? 0) * 1e3);
  if (lengthMs > LONGEST_SLIDE_MS)
    throw new UnusableFileError("This file says it lasts more than a day. Cut it into shorter ones.");
  if (!picture2) return { clip: null, lengthMs: lengthMs > 0 ? lengthMs : 0 };
  const { width = 0, height = 0 } = picture2;
  if (!(lengthMs > 0) || width < 2 || height < 2)
    throw new UnusableFileError("The clip has no moving picture that can be read. Export it again as MP4.");
  if (lengthMs > SUSPICIOUS.lengthMs && byteCount < SUSPICIOUS.bytesASecond * lengthMs / 1e3) {
    const count = await countPackets(file);
    if (count * SLOWEST_MS < lengthMs)
      throw new UnusableFileError(
        `The clip holds only ${count} ${count === 1 ? "picture" : "pictures"} for ${Math.round(lengthMs / 6e4)} minutes. Export it again as MP4.`
      );
  }
  const turned2 = Math.abs(picture2.side_data_list?.find((data) => data.rotation !== void 0)?.rotation ?? 0) % 180 === 90;
  return {
    lengthMs,
    clip: {
      kind: "clip",
      widthPx: turned2 ? height : width,
      heightPx: turned2 ? width : height,
      lengthMs,
      hasSound: found.streams.some((stream) => stream.codec_type === "audio"),
      takenAt: found.format.tags?.creation_time?.slice(0, 19) ?? null,
      ...rateOf(picture2),
      ...hdrOf(picture2)
    }
  };
}
var UNEVEN = 1.08;
function rateOf({
  avg_frame_rate: average,
  r_frame_rate: steady2
}) {
  const each = fraction(average);
  if (each === null) return {};
  const uneven = (fraction(steady2) ?? 0) > UNEVEN * each;
  return { framesPerSecond: Math.round(1e3 * each) / 1e3, ...uneven && { uneven: true } };
}
function fraction(text2 = "") {
  const [over, under] = text2.split("/").map(Number);
  const value = over / under;
  return value > 0 && Number.isFinite(value) ? value : null;
}
function hdrOf({ color_transfer: transfer }) {
  if (transfer === "smpte2084") return { hdr: "pq" };
  return transfer === "arib-std-b67" ? { hdr: "hlg" } : {};
}
async function probed(file) {
  try {
    return await probe(file);
  } catch (cause) {
    if (cause instanceof FfmpegError && cause.details === "") throw cause;
    throw new UnusableFileError(
      "The file is damaged or in a form that cannot be read. Export it again as MP4, or sound as MP3 or WAV.",
      { cause }
    );
  }
}

// src/server/assets/look-at-file.ts
var PICTURES = /* @__PURE__ */ new Set(["image/jpeg", "image/png", "image/gif", "image/webp", "image/avif", "image/tiff"]);
var HEIC = /* @__PURE__ */ new Set(["image/heic", "image/heif", "image/heic-sequence", "image/heif-sequence"]);
var UNREAD_PICTURES = /* @__PURE__ */ new Set(["image/bmp", "image/vnd.adobe.photoshop", "image/jp2", "image/jxl"]);
var DRAWING_TAKES_MS = 12e3;
var DRAWING_TRIED_PX = 2112;
var HEIC_TAKES_MS = 9e4;
var MEDIA_TAKES = { leastMs: 12e4, times: 3 };
async function lookAtFile(file, { signal, takes } = {}) {
  const { size } = await stat4(file);
  if (size === 0) throw new UnusableFileError("The file is empty. Copy it again from where it came from.");
  const type = await fileTypeFromFile(file);
  if ((!type || type.mime === "application/xml") && await pictureKind(file) === "drawing")
    return lookedAtDrawing(file, size, takes);
  if (await pictureKind(file) === "raw") return lookedAtRaw(file, type?.mime ?? "image/x-raw", size);
  if (type && PICTURES.has(type.mime)) return lookedAtPicture(file, type.mime, size);
  if (type && HEIC.has(type.mime)) return lookedAtHeic(file, type.mime, size, takes);
  if (type && UNREAD_PICTURES.has(type.mime))
    throw new UnusableFileError(
      `${type.ext.toUpperCase()} pictures cannot be read. Save it as JPEG, PNG, WebP, AVIF, HEIC or TIFF.`
    );
  if (type && /^(video|audio)\/|^application\/(ogg|mp4)$/.test(type.mime))
    return lookAtMedia(file, type.mime, size, { signal, takes });
  throw new UnusableFileError(
    `This is not a picture, a clip or a sound${type ? ` but ${articled(type.ext.toUpperCase())} file` : ""}, whatever its name says.`
  );
}
async function lookedAtPicture(file, mime, byteCount) {
  const { facts: facts2, small } = await lookAtPicture(file);
  return { facts: facts2, peaks: null, mime, byteCount, small };
}
async function lookedAtDrawing(file, byteCount, takes) {
  takes?.(DRAWING_TAKES_MS);
  const looked = await lookedAtPicture(file, "image/svg+xml", byteCount);
  try {
    await readPictureFile(file, DRAWING_TRIED_PX, DRAWING_TRIED_PX);
  } catch (cause) {
    throw new UnusableFileError("This drawing cannot be drawn at the size of a film. Save it in a plainer form.", {
      cause
    });
  }
  return looked;
}
async function lookedAtRaw(file, mime, byteCount) {
  await keepDecoded(file);
  return lookedAtPicture(file, mime, byteCount);
}
async function lookedAtHeic(file, mime, byteCount, takes) {
  takes?.(HEIC_TAKES_MS);
  try {
    await keepDecoded(file);
  } catch (cause) {
    throw new UnusableFileError(
      "This HEIC picture cannot be read; its file is damaged or of a sort that is not known here. Save it as JPEG and bring that.",
      { cause }
    );
  }
  return lookedAtPicture(file, mime, byteCount);
}
async function lookAtMedia(file, mime, byteCount, { signal, takes }) {
  const { clip, lengthMs } = await lookAtClip(file, byteCount);
  takes?.(MEDIA_TAKES.leastMs + MEDIA_TAKES.times * lengthMs);
  if (clip)
    return {
      facts: clip,
      peaks: clip.hasSound ? (await listen(file, signal)).peaks : null,
      mime,
      byteCount,
      small: null
    };
  const { peaks, ...heard } = await listen(file, signal);
  return {
    facts: { kind: "sound", lengthMs: heard.lengthMs, title: heard.title, artist: heard.artist },
    peaks,
    mime,
    byteCount,
    small: null
  };
}
function articled(letters) {
  return `${/^[AEFHILMNORSX]/.test(letters) ? "an" : "a"} ${letters}`;
}

// src/core/sound/between-samples.ts
var TAPS = 6;
var BETWEEN_SAMPLES = [0.25, 0.5, 0.75].map(
  (share) => Float64Array.from({ length: 2 * TAPS }, (_, tap) => {
    const away = tap - (TAPS - 1) - share;
    const sinc = Math.sin(Math.PI * away) / (Math.PI * away);
    return sinc * (0.5 + 0.5 * Math.cos(Math.PI * away / (TAPS + 0.5)));
  })
);
var RISES_AT_MOST = 1.6;

// src/core/sound/loudness.ts
var { abs } = Math;
var CURVE_PER_SECOND = 2;
var SILENT = -1200;
var ABSOLUTE_GATE = -70;
var RELATIVE_GATE = -10;
var STEPS_A_SECOND = 10;
var STEPS_A_BLOCK = 4;
var STEPS_A_POINT = STEPS_A_SECOND / CURVE_PER_SECOND;
function loudnessMeter(rate) {
  const filters = [weighting(rate), weighting(rate)];
  const peak = truePeakMeter();
  const stepSamples = rate / STEPS_A_SECOND;
  const powers = [];
  let sum = 0;
  let counted2 = 0;
  let inStep = 0;
  let squares = new Float64Array(0);
  return {
    add(samples) {
      peak.add(samples);
      const frames = samples.length >> 1;
      if (squares.length < frames) squares = new Float64Array(frames);
      squares.fill(0);
      filters.forEach((filter, channel2) => filter(samples, channel2, squares));
      for (let frame = 0; frame < frames; ) {
        const end = Math.min(frames, frame + Math.ceil((powers.length + 1) * stepSamples) - counted2);
        let added = 0;
        counted2 += end - frame;
        inStep += end - frame;
        for (; frame < end; frame += 1) added += squares[frame];
        sum += added;
        if (counted2 >= (powers.length + 1) * stepSamples) flush();
      }
    },
    finish() {
      if (inStep > 0) flush();
      const points = Math.ceil(powers.length / STEPS_A_POINT);
      const curve = Array.from(
        { length: points },
        (_, point) => tenths(mean(powers.slice(point * STEPS_A_POINT, (point + 1) * STEPS_A_POINT)))
      );
      return { integratedLufs: gated(powers), truePeakDb: peak.db(), curve };
    }
  };
  function flush() {
    powers.push(sum / inStep);
    sum = 0;
    inStep = 0;
  }
}
function lufsOfPower(power) {
  return -0.691 + 10 * Math.log10(Math.max(1e-30, power));
}
var mean = (values) => values.length === 0 ? 0 : values.reduce((sum, value) => sum + value, 0) / values.length;
var tenths = (power) => Math.max(SILENT, Math.round(10 * lufsOfPower(power)));
function gated(powers) {
  if (powers.length < STEPS_A_BLOCK) return twiceGated(powers);
  const blocks = [];
  for (let at3 = 0; at3 + STEPS_A_BLOCK <= powers.length; at3 += 1)
    blocks.push(mean(powers.slice(at3, at3 + STEPS_A_BLOCK)));
  return twiceGated(blocks);
}
function twiceGated(blocks) {
  const heard = blocks.filter((power) => lufsOfPower(power) > ABSOLUTE_GATE);
  if (heard.length === 0) return null;
  const threshold = lufsOfPower(mean(heard)) + RELATIVE_GATE;
  return lufsOfPower(mean(heard.filter((power) => lufsOfPower(power) > threshold)));
}
function weighting(rate) {
  const shelfK = Math.tan(Math.PI * 1681.974450955533 / rate);
  const shelfQ = 0.7071752369554196;
  const high = 10 ** (3.999843853973347 / 20);
  const band = high ** 0.4996667741545416;
  const shelfA = 1 + shelfK / shelfQ + shelfK * shelfK;
  const [b0, b1, b2] = [
    (high + band * shelfK / shelfQ + shelfK * shelfK) / shelfA,
    2 * (shelfK * shelfK - high) / shelfA,
    (high - band * shelfK / shelfQ + shelfK * shelfK) / shelfA
  ];
  const [a1, a2] = [2 * (shelfK * shelfK - 1) / shelfA, (1 - shelfK / shelfQ + shelfK * shelfK) / shelfA];
  const passK = Math.tan(Math.PI * 38.13547087602444 / rate);
  const passQ = 0.5003270373238773;
  const passA = 1 + passK / passQ + passK * passK;
  const [c1, c2] = [2 * (passK * passK - 1) / passA, (1 - passK / passQ + passK * passK) / passA];
  const state = { y1: 0, y2: 0, z1: 0, z2: 0 };
  return (samples, channel2, squares) => {
    let { y1, y2, z1, z2 } = state;
    for (let frame = 0; 2 * frame + channel2 < samples.length; frame += 1) {
      const value = samples[2 * frame + channel2];
      const shelved = b0 * value + y1;
      y1 = b1 * value - a1 * shelved + y2;
      y2 = b2 * value - a2 * shelved;
      const passed = shelved + z1;
      z1 = -2 * shelved - c1 * passed + z2;
      z2 = shelved - c2 * passed;
      squares[frame] = squares[frame] + passed * passed;
    }
    Object.assign(state, { y1, y2, z1, z2 });
  };
}
function kWeighting(rate) {
  const filter = weighting(rate);
  return (samples) => {
    const both = new Float32Array(2 * samples.length);
    for (let at3 = 0; at3 < samples.length; at3 += 1) both[2 * at3] = samples[at3];
    const squares = new Float64Array(samples.length);
    filter(both, 0, squares);
    return squares;
  };
}
function truePeakMeter() {
  let largest = 0;
  let kept3 = new Float32Array(0);
  return {
    add(added) {
      const samples = new Float32Array(kept3.length + added.length);
      samples.set(kept3);
      samples.set(added, kept3.length);
      const frames = samples.length >> 1;
      let least = largest / RISES_AT_MOST;
      for (let frame = TAPS - 1; frame + TAPS < frames; frame += 1)
        for (let channel2 = 0; channel2 < 2; channel2 += 1) {
          const at3 = 2 * frame + channel2;
          const size = abs(samples[at3]);
          if (size > largest) largest = size;
          if (size <= least && abs(samples[at3 + 2]) <= least) continue;
          least = largest / RISES_AT_MOST;
          for (const taps of BETWEEN_SAMPLES) {
            let value = 0;
            for (let tap = 0; tap < 2 * TAPS; tap += 1) value += taps[tap] * samples[at3 + 2 * (tap - TAPS + 1)];
            if (abs(value) > largest) largest = abs(value);
          }
        }
      for (const sample of added) if (abs(sample) > largest) largest = abs(sample);
      kept3 = samples.slice(Math.max(0, samples.length - 4 * TAPS));
    },
    db: () => largest > 0 ? 20 * Math.log10(largest) : null
  };
}

// src/core/sound/listening/spectrogram.ts
import FFT from "fft.js";
var { sqrt, log10 } = Math;
var LISTENING_RATE2 = 22050;
var HOP = 220;
var FRAMES_PER_SECOND = LISTENING_RATE2 / HOP;
var WINDOW = 1024;
var PITCH_WINDOW = 4096;
var PITCH_STRIDE = 4;
var BANDS_AN_OCTAVE = 12;
var LOWEST_HZ = 40;
var HIGHEST_HZ = 10500;
var LOWEST_PITCH_HZ = 65;
var HIGHEST_PITCH_HZ = 2100;
function spectrogram(samples) {
  const frameCount = Math.max(1, Math.ceil(samples.length / HOP));
  const edges2 = bandEdges();
  const bandCount = edges2.length - 2;
  const bands = new Float32Array(frameCount * bandCount);
  const magnitudes = magnitudesOf(WINDOW);
  for (let frame = 0; frame < frameCount; frame += 1) {
    const spectrum = magnitudes(samples, frame * HOP);
    for (let band = 0; band < bandCount; band += 1)
      bands[frame * bandCount + band] = log10(1 + triangle(spectrum, edges2, band));
  }
  return { frameCount, bandCount, bandHz: edges2.slice(1, -1).map(binHz), bands, ...chromaOf(samples, frameCount) };
}
var binHz = (bin) => bin * LISTENING_RATE2 / WINDOW;
function bandEdges() {
  const bins = [];
  for (let hz = LOWEST_HZ; hz < HIGHEST_HZ; hz *= 2 ** (1 / BANDS_AN_OCTAVE)) {
    const bin = Math.round(hz * WINDOW / LISTENING_RATE2);
    if (bin > 0 && bin !== bins.at(-1) && bin < WINDOW / 2) bins.push(bin);
  }
  return bins;
}
function triangle(spectrum, edges2, band) {
  const [from, peak, to] = [edges2[band], edges2[band + 1], edges2[band + 2]];
  let sum = spectrum[peak];
  for (let bin = from + 1; bin < peak; bin += 1) sum += spectrum[bin] * (bin - from) / (peak - from);
  for (let bin = peak + 1; bin < to; bin += 1) sum += spectrum[bin] * (to - bin) / (to - peak);
  return sum;
}
function chromaOf(samples, frameCount) {
  const chromaCount = Math.ceil(frameCount / PITCH_STRIDE);
  const chroma = new Float32Array(chromaCount * 12);
  const magnitudes = magnitudesOf(PITCH_WINDOW);
  const pitchOf = Array.from({ length: PITCH_WINDOW / 2 }, (_, bin) => {
    const hz = bin * LISTENING_RATE2 / PITCH_WINDOW;
    if (hz < LOWEST_PITCH_HZ || hz > HIGHEST_PITCH_HZ) return -1;
    return (Math.round(12 * Math.log2(hz / 440)) % 12 + 12) % 12;
  });
  for (let at3 = 0; at3 < chromaCount; at3 += 1) {
    const spectrum = magnitudes(samples, at3 * PITCH_STRIDE * HOP);
    const group = chroma.subarray(at3 * 12, at3 * 12 + 12);
    pitchOf.forEach((pitch, bin) => {
      if (pitch >= 0) group[pitch] = group[pitch] + log10(1 + spectrum[bin]);
    });
    const length = Math.hypot(...group);
    if (length > 1e-3) for (let pitch = 0; pitch < 12; pitch += 1) group[pitch] = group[pitch] / length;
    else group.fill(0);
  }
  return { chroma, chromaCount };
}
function magnitudesOf(size) {
  const fft = new FFT(size);
  const window = Float32Array.from({ length: size }, (_, at3) => 0.5 - 0.5 * Math.cos(2 * Math.PI * at3 / size));
  const input = new Float64Array(size);
  const output = new Float64Array(2 * size);
  const magnitudes = new Float32Array(size / 2);
  return (samples, centre2) => {
    const from = centre2 - size / 2;
    for (let at3 = 0; at3 < size; at3 += 1) {
      const index = from + at3;
      input[at3] = index >= 0 && index < samples.length ? samples[index] * window[at3] : 0;
    }
    fft.realTransform(output, input);
    for (let bin = 0; bin < size / 2; bin += 1) {
      const [re, im] = [output[2 * bin], output[2 * bin + 1]];
      magnitudes[bin] = sqrt(re * re + im * im);
    }
    return magnitudes;
  };
}

// src/core/sound/listening/grid-evidence.ts
var { abs: abs2, max: max2, min: min2, round: round2 } = Math;
var EVIDENCE = [
  "tempo",
  "fast",
  "slow",
  "bass",
  "halves",
  "bassHalves",
  "highHalves",
  "bassQuarters",
  "thirds",
  "turns",
  "highTurns",
  "chords",
  "chordHalves",
  "steady",
  "onBeats",
  "onQuarters",
  "onThirds",
  "bars",
  "agreed",
  "strong"
];
var USUAL_BPM = 115;
var USUAL_OCTAVES = 0.55;
var ON_PLACE = 3.2;
function gridScore(song, frames, others) {
  const evidence = evidenceOf(song, frames, others);
  return EVIDENCE.reduce((sum, name) => {
    const [weight, mean3, deviation] = WEIGHTS[name];
    return sum + weight * max2(-4, min2(4, (evidence[name] - mean3) / deviation));
  }, 0);
}
function evidenceOf({ onsets, harmony, peaks }, frames, others) {
  const gaps = frames.length - 1;
  const all = frames.map((frame) => nearby(onsets.all, frame, 2));
  const low = frames.map((frame) => nearby(onsets.low, frame, 2));
  const high = frames.map((frame) => nearby(onsets.high, frame, 2));
  const between4 = (curve, share, reach2 = 2) => {
    let sum = 0;
    for (let beat = 0; beat < gaps; beat += 1)
      sum += nearby(curve, frames[beat] + (frames[beat + 1] - frames[beat]) * share, reach2);
    return sum / gaps;
  };
  const octaves = Math.log2(bpmOf(frames) / USUAL_BPM);
  const strokes = placesOfStrokes(frames, peaks);
  return {
    tempo: octaves * octaves,
    fast: max2(0, octaves - USUAL_OCTAVES) ** 2,
    slow: max2(0, -octaves - USUAL_OCTAVES) ** 2,
    bass: mean2(low),
    halves: between4(onsets.all, 0.5),
    bassHalves: between4(onsets.low, 0.5),
    highHalves: between4(onsets.high, 0.5),
    bassQuarters: (between4(onsets.low, 0.25) + between4(onsets.low, 0.75)) / 2,
    thirds: (between4(onsets.all, 1 / 3) + between4(onsets.all, 2 / 3)) / 2,
    turns: abs2(turn(all)),
    highTurns: abs2(turn(high)),
    chords: mean2(frames.map((frame) => nearby(harmony, frame, 4))),
    chordHalves: between4(harmony, 0.5, 4),
    steady: unsteadiness(frames),
    onBeats: strokes.beats,
    onQuarters: strokes.quarters,
    onThirds: strokes.thirds,
    bars: change(all, low, 4) - change(all, low, 1),
    agreed: mean2(others.map((other) => agreement(other, frames))),
    strong: all.filter((value) => value > 0.5).length / all.length
  };
}
function bpmOf(frames) {
  return 60 * FRAMES_PER_SECOND * (frames.length - 1) / (frames.at(-1) - frames[0]);
}
function nearby(curve, place, reach2) {
  const at3 = round2(place);
  let largest = -1;
  for (let frame = max2(0, at3 - reach2); frame <= at3 + reach2 && frame < curve.length; frame += 1)
    if (curve[frame] > largest) largest = curve[frame];
  return largest;
}
function agreement(one, other) {
  const tolerance = 0.05 * FRAMES_PER_SECOND;
  let [i, j, hits] = [0, 0, 0];
  while (i < one.length && j < other.length) {
    const away = other[j] - one[i];
    if (abs2(away) <= tolerance) hits += 1;
    if (away <= tolerance) j += 1;
    if (away >= -tolerance) i += 1;
  }
  return one.length + other.length === 0 ? 0 : 2 * hits / (one.length + other.length);
}
var mean2 = (values) => values.length === 0 ? 0 : values.reduce((sum, value) => sum + value, 0) / values.length;
function turn(values) {
  return mean2(values.filter((_, beat) => beat % 2 === 0)) - mean2(values.filter((_, beat) => beat % 2 === 1));
}
function change(all, low, by) {
  const count = all.length - by;
  if (count <= 0) return 0;
  let sum = 0;
  for (let beat = 0; beat < count; beat += 1)
    sum += abs2(all[beat] - all[beat + by]) + abs2(low[beat] - low[beat + by]);
  return sum / count;
}
function unsteadiness(frames) {
  let sum = 0;
  for (let beat = 1; beat + 1 < frames.length; beat += 1) {
    const ratio = Math.log((frames[beat + 1] - frames[beat]) / (frames[beat] - frames[beat - 1]));
    sum += min2(0.05, ratio * ratio);
  }
  return 1e3 * sum / max2(1, frames.length - 1);
}
function placesOfStrokes(frames, peaks) {
  let [beats, quarters, thirds, beat] = [0, 0, 0, 0];
  for (const peak of peaks) {
    while (beat + 2 < frames.length && frames[beat + 1] <= peak) beat += 1;
    const gap = frames[beat + 1] - frames[beat];
    const place = (peak - frames[beat]) / gap;
    if (place < -0.2 || place > 1.2) continue;
    const on = (share) => abs2(place - share) * gap <= ON_PLACE;
    if (on(0) || on(1)) beats += 1;
    else if (on(0.5)) continue;
    else if (on(0.25) || on(0.75)) quarters += 1;
    else if (on(1 / 3) || on(2 / 3)) thirds += 1;
  }
  const count = max2(1, peaks.length);
  return { beats: beats / count, quarters: quarters / count, thirds: thirds / count };
}
var WEIGHTS = {
  tempo: [-0.574, 0.4682, 0.4888],
  fast: [-0.418, 482e-5, 0.01955],
  slow: [-0.315, 0.07894, 0.1587],
  bass: [0.538, 1.237, 0.6468],
  halves: [0.229, 0.9626, 0.938],
  bassHalves: [-0.22, 0.8872, 0.7057],
  highHalves: [0.187, 0.9131, 0.954],
  bassQuarters: [-0.113, 0.6242, 0.4919],
  thirds: [-0.603, 0.7686, 0.853],
  turns: [-0.077, 0.762, 0.7908],
  highTurns: [0.395, 0.7603, 0.7973],
  chords: [0.255, 0.2888, 0.2163],
  chordHalves: [-0.716, 0.2463, 0.2119],
  steady: [-0.484, 0.266, 0.2929],
  onBeats: [1.012, 0.2311, 0.1238],
  onQuarters: [-0.098, 0.2007, 0.1475],
  onThirds: [-0.715, 0.1954, 0.1822],
  bars: [-0.147, -0.553, 1.12],
  agreed: [0.927, 0.3293, 0.1748],
  strong: [0.405, 0.5999, 0.2439]
};

// src/core/sound/listening/bars.ts
var WEIGHTS2 = { harmony: 0.25, chord: 0.44, bassStroke: 0.63, highStroke: -0.15, bassChange: 0.33, bassLevel: 0.2 };
var SLIP_COST = 8;
var WALTZ_COST = 0.1;
var BASS_HZ = 200;
function barsOf3(spectrum, song, frames) {
  const accents = accentsOf(spectrum, song, frames);
  const four = best(accents, 4);
  const three = best(accents, 3);
  return three.score - WALTZ_COST > four.score ? { beatsABar: 3, firsts: three.firsts } : { beatsABar: 4, firsts: four.firsts };
}
function accentsOf(spectrum, song, frames) {
  const endOf = (beat) => frames[beat + 1] ?? frames[beat] + (frames[beat] - (frames[beat - 1] ?? 0));
  const chords = frames.map((frame, beat) => chordBetween(spectrum, frame, endOf(beat)));
  const basses = frames.map((frame, beat) => bassBetween(spectrum, frame + 2, endOf(beat)));
  const evidence = {
    harmony: frames.map((frame) => nearby(song.harmony, frame, 6)),
    chord: chords.map((chord, beat) => beat === 0 ? 0 : 1 - likeness2(chords[beat - 1], chord)),
    bassStroke: frames.map((frame) => nearby(song.onsets.low, frame, 2)),
    highStroke: frames.map((frame) => nearby(song.onsets.high, frame, 2)),
    bassChange: basses.map((bass, beat) => beat === 0 ? 0 : distance(basses[beat - 1], bass)),
    bassLevel: basses.map((bass) => bass.reduce((sum, value) => sum + value, 0))
  };
  const names = Object.keys(WEIGHTS2);
  const levelled2 = names.map((name) => ({ weight: WEIGHTS2[name], values: standard(evidence[name]) }));
  return frames.map((_, beat) => levelled2.reduce((sum, { weight, values }) => sum + weight * values[beat], 0));
}
function best(accents, length) {
  const worth = (accent, place2) => place2 === 0 ? accent * Math.sqrt(length) : 0;
  let scores = Array.from({ length }, (_, place2) => worth(accents[0] ?? 0, place2));
  const came = [];
  for (const accent of accents.slice(1)) {
    const top = scores.indexOf(Math.max(...scores));
    const usual = (place2) => (place2 + length - 1) % length;
    const from = scores.map((_, place2) => scores[usual(place2)] >= scores[top] - SLIP_COST ? usual(place2) : top);
    scores = from.map(
      (before, place2) => scores[before] - (before === usual(place2) ? 0 : SLIP_COST) + worth(accent, place2)
    );
    came.push(from);
  }
  const score = Math.max(...scores);
  let place = scores.indexOf(score);
  const firsts = [];
  for (let beat = accents.length - 1; beat >= 0; beat -= 1) {
    if (place === 0) firsts.push(beat);
    place = came[beat - 1]?.[place] ?? 0;
  }
  return { score: score / Math.max(1, accents.length), firsts: firsts.reverse() };
}
function chordBetween({ chroma, chromaCount }, from, to) {
  const chord = Array.from({ length: 12 }, () => 0);
  const end = Math.min(chromaCount, Math.round(to / PITCH_STRIDE));
  for (let group = Math.max(0, Math.round(from / PITCH_STRIDE)); group < end; group += 1)
    for (let pitch = 0; pitch < 12; pitch += 1) chord[pitch] = chord[pitch] + chroma[group * 12 + pitch];
  return chord;
}
function bassBetween({ bands, bandCount, bandHz, frameCount }, from, to) {
  const count = bandHz.filter((hz) => hz < BASS_HZ).length;
  const bass = Array.from({ length: count }, () => 0);
  const end = Math.min(frameCount, Math.round(to));
  for (let frame = Math.max(0, Math.round(from)); frame < end; frame += 1)
    for (let band = 0; band < count; band += 1) bass[band] = bass[band] + bands[frame * bandCount + band];
  return bass;
}
function likeness2(one, other) {
  let [both, a, b] = [0, 0, 0];
  one.forEach((value, at3) => {
    both += value * other[at3];
    a += value * value;
    b += other[at3] * other[at3];
  });
  return a > 0 && b > 0 ? both / Math.sqrt(a * b) : 1;
}
function distance(one, other) {
  return one.reduce((sum, value, at3) => sum + Math.abs(value - other[at3]), 0);
}
function standard(values) {
  const mean3 = values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);
  const deviation = Math.sqrt(values.reduce((sum, value) => sum + (value - mean3) ** 2, 0) / Math.max(1, values.length)) + 1e-6;
  return values.map((value) => Math.max(-3, Math.min(3, (value - mean3) / deviation)));
}

// src/core/sound/listening/beat-path.ts
var { abs: abs3 } = Math;
var STEP2 = 1.02;
var CHANGE_COST = 900;
var REACH = 4;
var USUAL_GAP = 50;
function bestBeats(strength, range2) {
  const intervals = [];
  for (let interval = range2.shortest; interval <= range2.longest * 1.0001; interval *= STEP2) intervals.push(interval);
  const kinds2 = intervals.length;
  const count = strength.length;
  const whole2 = intervals.map(Math.round);
  const longest = whole2.at(-1);
  if (count < 3 * longest) return null;
  const priors = intervals.map((interval) => range2.prior(interval) * interval);
  const change2 = Array.from({ length: REACH + 1 }, (_, steps) => CHANGE_COST * (steps * Math.log(STEP2)) ** 2);
  const scores = new Float32Array(count * kinds2);
  const came = new Int8Array(count * kinds2);
  for (let frame2 = 0; frame2 < count; frame2 += 1)
    for (let kind2 = 0; kind2 < kinds2; kind2 += 1) {
      const gap = whole2[kind2];
      const own = (strength[frame2] * gap + priors[kind2]) / USUAL_GAP;
      const before = frame2 - gap;
      let best3 = -Infinity;
      let step2 = 0;
      if (before < 0) best3 = 0;
      else
        for (let by = -REACH; by <= REACH; by += 1) {
          const from = kind2 + by;
          if (from < 0 || from >= kinds2) continue;
          const value = scores[before * kinds2 + from] - change2[abs3(by)];
          if (value > best3) [best3, step2] = [value, by];
        }
      scores[frame2 * kinds2 + kind2] = best3 + own;
      came[frame2 * kinds2 + kind2] = step2;
    }
  let [frame, kind, best2] = [0, 0, -Infinity];
  for (let end = count - longest; end < count; end += 1)
    for (let of = 0; of < kinds2; of += 1)
      if (end >= count - whole2[of] && scores[end * kinds2 + of] > best2)
        [frame, kind, best2] = [end, of, scores[end * kinds2 + of]];
  const frames = [];
  while (frame >= 0) {
    frames.push(frame);
    const step2 = came[frame * kinds2 + kind];
    frame -= whole2[kind];
    kind += step2;
  }
  return frames.reverse();
}

// src/core/sound/listening/beat-grid.ts
var SLOWEST_BPM = 45;
var FASTEST_BPM = 220;
var RANGES = [
  range(50, 110, 80),
  range(70, 170, 115),
  range(100, 215, 150),
  range(50, 215, 110)
];
var EARS = [
  { all: 1, low: 0, high: 0 },
  { all: 0.6, low: 0.7, high: 0 },
  { all: 0.6, low: 0, high: 0.7 }
];
var RELATIVES = [
  [1, 1],
  [1, 2],
  [2, 1],
  [2, 2],
  [3, 1],
  [1, 3],
  [3, 2],
  [2, 3],
  [4, 3],
  [3, 4]
];
var SAME = 0.85;
function findBeats(song) {
  if (song.peaks.length < 4) return null;
  const { grids, candidates } = candidateGrids(song);
  const scored = candidates.map((frames) => ({ frames, score: gridScore(song, frames, grids) }));
  const best2 = scored.reduce(
    (top, one) => top === null || one.score > top.score ? one : top,
    null
  );
  if (!best2) return null;
  const likelihoods = scored.map(({ score }) => Math.exp(score - best2.score));
  const whole2 = likelihoods.reduce((sum, value) => sum + value, 0);
  const same = scored.reduce(
    (sum, { frames }, index) => agreement(frames, best2.frames) > SAME ? sum + likelihoods[index] : sum,
    0
  );
  return { frames: best2.frames, confidence: same / whole2 };
}
function candidateGrids(song) {
  const grids = EARS.flatMap((ear) => {
    const strength = Float32Array.from(
      song.onsets.all,
      (value, frame) => ear.all * value + ear.low * song.onsets.low[frame] + ear.high * song.onsets.high[frame]
    );
    return RANGES.flatMap((where) => {
      const found = bestBeats(strength, where);
      return found ? [found] : [];
    });
  });
  const candidates = /* @__PURE__ */ new Map();
  for (const grid of grids)
    for (const frames of relatives(grid)) {
      if (frames.length < 4) continue;
      const bpm = bpmOf(frames);
      if (bpm < SLOWEST_BPM || bpm > FASTEST_BPM) continue;
      const sample = frames.filter((_, beat) => beat % 8 === 4).slice(0, 6);
      candidates.set(`${Math.round(bpm)} ${sample.map((frame) => Math.round(frame / 4)).join(" ")}`, frames);
    }
  return { grids, candidates: [...candidates.values()] };
}
function* relatives(grid) {
  for (const [parts, every] of RELATIVES) {
    const finer = grid.flatMap((frame, beat) => {
      const next = grid[beat + 1];
      if (next === void 0) return [frame];
      return Array.from({ length: parts }, (_, part) => frame + (next - frame) * part / parts);
    });
    for (let first = 0; first < every; first += 1)
      if (parts !== every || first > 0 || parts === 1) yield finer.filter((_, index) => index % every === first);
  }
}
function range(slowestBpm, fastestBpm, usualBpm) {
  const frames = (bpm) => 60 * FRAMES_PER_SECOND / bpm;
  return {
    shortest: frames(fastestBpm),
    longest: frames(slowestBpm),
    prior: (interval) => -0.6 * Math.log2(frames(usualBpm) / interval) ** 2
  };
}

// src/core/sound/listening/harmony.ts
var REACH2 = 6;
var MOST2 = 4;
function harmonicChange({ chroma, chromaCount, frameCount }) {
  const change2 = new Float32Array(chromaCount);
  for (let at3 = 0; at3 < chromaCount; at3 += 1) {
    let [both, before, after] = [0, 0, 0];
    for (let pitch = 0; pitch < 12; pitch += 1) {
      let [p, q] = [0, 0];
      for (let by = 1; by <= REACH2; by += 1) {
        p += chroma[(at3 - by) * 12 + pitch] ?? 0;
        q += chroma[(at3 + by - 1) * 12 + pitch] ?? 0;
      }
      both += p * q;
      before += p * p;
      after += q * q;
    }
    change2[at3] = before > 0 && after > 0 ? 1 - both / Math.sqrt(before * after) : 0;
  }
  const mean3 = change2.reduce((sum, value) => sum + value, 0) / Math.max(1, chromaCount);
  const variance = change2.reduce((sum, value) => sum + (value - mean3) ** 2, 0) / Math.max(1, chromaCount);
  const deviation = Math.sqrt(variance) + 1e-6;
  return Float32Array.from({ length: frameCount }, (_, frame) => {
    const place = frame / PITCH_STRIDE;
    const left = Math.floor(place);
    const from = change2[left] ?? 0;
    const value = from + ((change2[left + 1] ?? from) - from) * (place - left);
    return Math.min(MOST2, (value - mean3) / deviation);
  });
}

// src/core/sound/listening/joints.ts
var { abs: abs4, exp, floor: floor2, max: max3, min: min3, round: round3, sqrt: sqrt2 } = Math;
var TIMBRES = 10;
var SIZE = 12 + TIMBRES + 1;
var PITCH_WEIGHT = 1.6;
var TIMBRE_WEIGHT = 1;
var LEVEL_WEIGHT = 0.8;
var AROUND = 4;
var WEIGHTS3 = Array.from({ length: 2 * AROUND }, (_, at3) => exp(-(((at3 - AROUND + 0.5) / 2.4) ** 2)));
var WEIGHT = WEIGHTS3.reduce((sum, weight) => sum + weight, 0);
var KEPT = 7;
var KEPT_BETWEEN = 3;
var HALF_BAR_COSTS = 0.5;
var BEAT_COSTS = 1;
var NEAREST_BEATS = 4;
var LARGEST = 2.2;
var GRID_MS2 = 500;
var PHASE_RATE = LISTENING_RATE2 / 2;
var PHASE_REACH = round3(0.012 * PHASE_RATE);
var PHASE_WINDOW = round3(0.03 * PHASE_RATE);
var LONGEST_TAILORED_MS = 20 * 6e4;
function textureOf({ bands, bandCount, frameCount, chroma, chromaCount }) {
  const moments2 = [];
  for (let at3 = 0; at3 < chromaCount; at3 += 1) {
    const own = new Float32Array(SIZE);
    own.set(chroma.subarray(at3 * 12, at3 * 12 + 12));
    const frames = min3(PITCH_STRIDE, frameCount - at3 * PITCH_STRIDE);
    for (let frame = 0; frame < frames; frame += 1)
      for (let band = 0; band < bandCount; band += 1) {
        const value = bands[(at3 * PITCH_STRIDE + frame) * bandCount + band] / frames;
        const timbre = 12 + floor2(band * TIMBRES / bandCount);
        own[timbre] = own[timbre] + value * TIMBRES / bandCount;
        own[SIZE - 1] = own[SIZE - 1] + value / bandCount;
      }
    moments2.push(own);
  }
  return { moments: moments2 };
}
var MOMENTS_A_SECOND = LISTENING_RATE2 / HOP / PITCH_STRIDE;
function jointsOf(moments2, places2, barPlaces, aBar, samples) {
  const count = places2.length;
  const beats = places2.map((atMs, index) => meanOf(moments2, atMs, places2[index + 1] ?? atMs + GRID_MS2));
  const apart2 = differences(beats);
  const usual = usualDifference(apart2, count, aBar);
  const to = places2.map((_, from) => {
    const found = [];
    for (let place = AROUND; place < count - AROUND; place += 1) {
      if (from < AROUND || from >= count - AROUND || abs4(place - from) < NEAREST_BEATS) continue;
      const off = barPlaces ? (barPlaces[place] - barPlaces[from] + 2 * aBar) % aBar : 0;
      const moved2 = off === 0 ? 0 : 2 * off === aBar ? HALF_BAR_COSTS : BEAT_COSTS;
      const cost = unlikeness(apart2, count, from, place) / usual + moved2;
      if (cost <= LARGEST) found.push({ place, cost, isBar: off === 0 });
    }
    const best2 = (some, most) => some.toSorted((a, b) => a.cost - b.cost).slice(0, most);
    const ways = [found.filter(({ place }) => place > from), found.filter(({ place }) => place < from)];
    const kept3 = ways.flatMap((some) => [
      ...best2(
        some.filter(({ isBar }) => isBar),
        KEPT
      ),
      ...best2(
        some.filter(({ isBar }) => !isBar),
        KEPT_BETWEEN
      )
    ]);
    return kept3.flatMap(({ place, cost }) => [
      place,
      round3(100 * cost),
      round3(10 * laterMs(samples, places2[from], places2[place]))
    ]);
  });
  return { atMs: places2, aBar, to };
}
function meanOf(moments2, fromMs, toMs) {
  const from = max3(0, min3(moments2.length - 1, round3(fromMs / 1e3 * MOMENTS_A_SECOND)));
  const to = max3(from + 1, min3(moments2.length, round3(toMs / 1e3 * MOMENTS_A_SECOND)));
  const mean3 = new Float32Array(SIZE);
  for (let at3 = from; at3 < to; at3 += 1)
    for (let part = 0; part < SIZE; part += 1) mean3[part] = mean3[part] + moments2[at3][part] / (to - from);
  return mean3;
}
function difference(a, b) {
  let both = 0;
  let own = 1e-9;
  let other = 1e-9;
  let timbre = 0;
  for (let pitch = 0; pitch < 12; pitch += 1) {
    both += a[pitch] * b[pitch];
    own += a[pitch] * a[pitch];
    other += b[pitch] * b[pitch];
  }
  for (let band = 12; band < SIZE - 1; band += 1) {
    const apart2 = a[band] - b[band];
    timbre += apart2 * apart2;
  }
  return PITCH_WEIGHT * (1 - both / sqrt2(own * other)) + TIMBRE_WEIGHT * sqrt2(timbre / TIMBRES) + LEVEL_WEIGHT * abs4(a[SIZE - 1] - b[SIZE - 1]);
}
function differences(beats) {
  const count = beats.length;
  const apart2 = new Float32Array(count * count);
  for (let one = 0; one < count; one += 1)
    for (let other = one + 1; other < count; other += 1) {
      const value = difference(beats[one], beats[other]);
      apart2[one * count + other] = value;
      apart2[other * count + one] = value;
    }
  return apart2;
}
function unlikeness(apart2, count, from, to) {
  let sum = 0;
  for (let off = -AROUND; off < AROUND; off += 1)
    sum += WEIGHTS3[off + AROUND] * apart2[(from + off) * count + to + off];
  return sum / WEIGHT;
}
function usualDifference(apart2, count, aBar) {
  const all = [];
  for (let at3 = AROUND; at3 + aBar + AROUND < count; at3 += 1) all.push(unlikeness(apart2, count, at3, at3 + aBar));
  return max3(1e-3, all.toSorted((a, b) => a - b)[all.length >> 1] ?? 1);
}
function laterMs(samples, leaveMs, enterMs) {
  const leave = round3(leaveMs / 1e3 * PHASE_RATE);
  const enter = round3(enterMs / 1e3 * PHASE_RATE);
  const reach2 = PHASE_WINDOW + PHASE_REACH + 2;
  if (min3(leave, enter) < reach2 || max3(leave, enter) + reach2 >= samples.length) return 0;
  const match = (lag, step2) => {
    let both = 0;
    let own = 1e-9;
    for (let off = -PHASE_WINDOW; off < PHASE_WINDOW / 2; off += step2) {
      const value = samples[enter + lag + off];
      both += samples[leave + off] * value;
      own += value * value;
    }
    return both / sqrt2(own);
  };
  let best2 = 0;
  let largest = match(0, 2);
  for (let lag = -PHASE_REACH; lag <= PHASE_REACH; lag += 2) {
    const value = match(lag, 2);
    if (value > largest) [best2, largest] = [lag, value];
  }
  const fine = [best2 - 1, best2, best2 + 1].map((lag) => ({ lag, value: match(lag, 1) }));
  const top = fine.reduce((one, other) => other.value > one.value ? other : one);
  return top.lag * 1e3 / PHASE_RATE;
}

// src/core/sound/listening/listening-facts.ts
function isDoubtful({ confidence }) {
  return confidence < 0.5;
}

// src/core/sound/listening/onsets.ts
var { max: max4, min: min4, sqrt: sqrt3 } = Math;
var LAG = 3;
var LOW_HZ = 180;
var HIGH_HZ = 2500;
var SURROUNDINGS_S = 4;
var MOST3 = 4;
var PEAK_REACH = 3;
var PEAK_LEAST = 0.8;
function onsetsOf(spectrum) {
  const { frameCount, bandCount, bandHz } = spectrum;
  const [all, low, high] = [0, 1, 2].map(() => new Float32Array(frameCount));
  for (let frame = LAG; frame < frameCount; frame += 1) {
    const now = frame * bandCount;
    const before = (frame - LAG) * bandCount;
    for (let band = 0; band < bandCount; band += 1) {
      const left = spectrum.bands[before + max4(0, band - 1)];
      const own = spectrum.bands[before + band];
      const right2 = spectrum.bands[before + min4(bandCount - 1, band + 1)];
      const rise = spectrum.bands[now + band] - max4(left, own, right2);
      if (rise <= 0) continue;
      all[frame] = all[frame] + rise;
      if (bandHz[band] < LOW_HZ) low[frame] = low[frame] + rise;
      else if (bandHz[band] > HIGH_HZ) high[frame] = high[frame] + rise;
    }
  }
  return { all: levelled(all), low: levelled(low), high: levelled(high) };
}
function strokePeaks(curve) {
  const peaks = [];
  for (let frame = PEAK_REACH; frame + PEAK_REACH < curve.length; frame += 1) {
    const value = curve[frame];
    if (value <= PEAK_LEAST || peaks.at(-1) === frame - 1) continue;
    let largest = true;
    for (let by = -PEAK_REACH; by <= PEAK_REACH; by += 1) if (curve[frame + by] > value) largest = false;
    if (largest) peaks.push(frame);
  }
  return peaks;
}
function levelled(curve) {
  const reach2 = Math.round(SURROUNDINGS_S * LISTENING_RATE2 / HOP);
  const sums = new Float64Array(curve.length + 1);
  const squares = new Float64Array(curve.length + 1);
  curve.forEach((value, at3) => {
    sums[at3 + 1] = sums[at3] + value;
    squares[at3 + 1] = squares[at3] + value * value;
  });
  const wholeMean = sums[curve.length] / max4(1, curve.length);
  const wholeDeviation = sqrt3(max4(0, squares[curve.length] / max4(1, curve.length) - wholeMean ** 2));
  return curve.map((value, at3) => {
    const from = max4(0, at3 - reach2);
    const to = min4(curve.length, at3 + reach2);
    const mean3 = (sums[to] - sums[from]) / (to - from);
    const deviation = sqrt3(max4(0, (squares[to] - squares[from]) / (to - from) - mean3 * mean3));
    return max4(-0.5, min4(MOST3, (value - mean3) / (0.9 * deviation + 0.1 * wholeDeviation + 1e-6)));
  });
}

// src/core/sound/listening/sections.ts
var KERNEL = 16;
var MOMENTS_PER_SECOND = 2;
var SHORTEST_MS = 7e3;
var NOVELTY = 0.6;
var ALIKE = 0.985;
function sectionsOf(spectrum, energy, barsMs, lengthMs) {
  const moments2 = momentsOf(spectrum);
  const novelty = noveltyOf(moments2, energy);
  const borders = [0, ...peaksOf(novelty).map((moment) => nearest(barsMs, moment * 1e3 / MOMENTS_PER_SECOND))];
  const starts = [];
  for (const startMs of borders)
    if (starts.length === 0 || startMs - starts.at(-1) >= SHORTEST_MS) {
      if (startMs === 0 || lengthMs - startMs >= SHORTEST_MS / 2) starts.push(startMs);
    }
  return labelled(
    starts.map((startMs, index) => ({ startMs, endMs: Math.round(starts[index + 1] ?? lengthMs) })),
    moments2,
    energy
  );
}
function momentsOf(spectrum) {
  const { frameCount, bandCount, bands, chroma, chromaCount } = spectrum;
  const perMoment = FRAMES_PER_SECOND / MOMENTS_PER_SECOND;
  const groups = Math.max(1, Math.round(bandCount / 12));
  return Array.from({ length: Math.ceil(frameCount / perMoment) }, (_, moment) => {
    const chord = Array.from({ length: 12 }, () => 0);
    const timbre = Array.from({ length: Math.ceil(bandCount / groups) }, () => 0);
    const [from, to] = [Math.round(moment * perMoment), Math.min(frameCount, Math.round((moment + 1) * perMoment))];
    for (let frame = from; frame < to; frame += 1)
      for (let band = 0; band < bandCount; band += 1) {
        const group = Math.floor(band / groups);
        timbre[group] = timbre[group] + bands[frame * bandCount + band];
      }
    const end = Math.min(chromaCount, Math.ceil(to / PITCH_STRIDE));
    for (let group = Math.floor(from / PITCH_STRIDE); group < end; group += 1)
      for (let pitch = 0; pitch < 12; pitch += 1) chord[pitch] = chord[pitch] + chroma[group * 12 + pitch];
    return { chord, timbre };
  });
}
function noveltyOf(moments2, energy) {
  const alike = (a, b) => {
    const [one, other] = [moments2[a], moments2[b]];
    const louder = Math.abs((energy[a] ?? 0) - (energy[b] ?? 0));
    return likeness2(one.chord, other.chord) + 2 * likeness2(one.timbre, other.timbre) - 2 * louder;
  };
  return moments2.map((_, centre2) => {
    let [sum, weights] = [0, 0];
    for (let by = -KERNEL; by < KERNEL; by += 1)
      for (let to = -KERNEL; to < KERNEL; to += 2) {
        const [a, b] = [centre2 + by, centre2 + to];
        if (a < 0 || b < 0 || a >= moments2.length || b >= moments2.length) continue;
        const weight = Math.exp(-((by * by + to * to) / (KERNEL * KERNEL)));
        sum += alike(a, b) * weight * (by < 0 === to < 0 ? 1 : -1);
        weights += weight;
      }
    return weights > 0 ? sum / weights : 0;
  });
}
function peaksOf(novelty) {
  const mean3 = novelty.reduce((sum, value) => sum + value, 0) / Math.max(1, novelty.length);
  const deviation = Math.sqrt(
    novelty.reduce((sum, value) => sum + (value - mean3) ** 2, 0) / Math.max(1, novelty.length)
  );
  const reach2 = KERNEL / 2;
  return novelty.flatMap((value, at3) => {
    if (at3 < reach2 || at3 >= novelty.length - reach2 || value < mean3 + NOVELTY * deviation) return [];
    for (let by = -reach2; by <= reach2; by += 1) {
      const other = novelty[at3 + by] ?? -Infinity;
      if (other > value || other === value && by < 0) return [];
    }
    return [at3];
  });
}
function labelled(spans, moments2, energy) {
  const part = (values, { startMs, endMs }) => values.slice(
    Math.floor(startMs * MOMENTS_PER_SECOND / 1e3),
    Math.max(1, Math.floor(endMs * MOMENTS_PER_SECOND / 1e3))
  );
  const sums = (vectors) => (vectors[0] ?? []).map((_, at3) => vectors.reduce((sum, vector) => sum + vector[at3], 0));
  const known = [];
  return spans.map((span, index) => {
    const within2 = part(energy, span);
    const level = within2.reduce((sum, value) => sum + value, 0) / Math.max(1, within2.length);
    const chord = sums(part(moments2, span).map((moment) => moment.chord));
    const timbre = sums(part(moments2, span).map((moment) => moment.timbre));
    const same = known.find(
      (one) => likeness2(one.chord, chord) > ALIKE && likeness2(one.timbre, timbre) > ALIKE && Math.abs(one.energy - level) < 0.12
    );
    const label2 = same?.label ?? named(level, index, spans.length, known);
    if (!same) known.push({ label: label2, chord, timbre, energy: level });
    return { ...span, label: label2, energy: Math.round(level * 100) / 100 };
  });
}
function named(level, index, count, known) {
  if (count > 1 && index === 0 && level < 0.55) return "quiet opening";
  if (count > 1 && index === count - 1 && level < 0.55) return "quiet ending";
  const word = level < 0.4 ? "quiet" : level < 0.72 ? "middle" : "full";
  const others = known.filter(({ label: label2 }) => label2.startsWith(word) && !label2.includes(" ")).length;
  return others === 0 ? word : `${word} ${others + 1}`;
}
function nearest(momentsMs, atMs) {
  return momentsMs.reduce(
    (best2, moment) => Math.abs(moment - atMs) < Math.abs(best2 - atMs) ? moment : best2,
    momentsMs[0] ?? atMs
  );
}

// src/core/sound/listening/hear-song.ts
var LATE_MS = 7;
var PIECE_SECONDS = 300;
var OVERLAP_SECONDS = 20;
var LEAST_SECONDS = 8;
var ACCENT = 2.2;
function songHearing(wantsBeats, pieceSeconds = PIECE_SECONDS) {
  const pieceSamples = pieceSeconds * LISTENING_RATE2;
  const overlapSamples = OVERLAP_SECONDS * LISTENING_RATE2;
  let waiting = [];
  let waitingCount = 0;
  let heardBefore = 0;
  const phases = phaseSamples();
  const pieces = [];
  return {
    add(samples) {
      if (!wantsBeats) return;
      phases.add(samples);
      waiting.push(samples);
      waitingCount += samples.length;
      while (waitingCount >= pieceSamples + overlapSamples) {
        const all = joined(waiting, waitingCount);
        pieces.push(heardPiece(all.subarray(0, pieceSamples), heardBefore));
        const rest = all.slice(pieceSamples - overlapSamples);
        heardBefore += pieceSamples - overlapSamples;
        waiting = [rest];
        waitingCount = rest.length;
      }
    },
    finish(loudness) {
      if (wantsBeats && waitingCount > 0) pieces.push(heardPiece(joined(waiting, waitingCount), heardBefore));
      const facts2 = factsOf(loudness, pieces);
      const joints = jointsIn(facts2, pieces, phases.all());
      return joints ? { ...facts2, joints } : facts2;
    }
  };
}
function joined(parts, count) {
  if (parts.length === 1) return parts[0];
  const all = new Float32Array(count);
  let at3 = 0;
  for (const part of parts) {
    all.set(part, at3);
    at3 += part.length;
  }
  return all;
}
function heardPiece(samples, firstSample) {
  const fromMs = firstSample * 1e3 / LISTENING_RATE2;
  const toMs = fromMs + samples.length * 1e3 / LISTENING_RATE2;
  if (samples.length < LEAST_SECONDS * LISTENING_RATE2)
    return { fromMs, toMs, grid: null, sections: [], strokes: [], texture: { moments: [] } };
  const spectrum = spectrogram(samples);
  const onsets = onsetsOf(spectrum);
  const song = { onsets, harmony: harmonicChange(spectrum), peaks: strokePeaks(onsets.all) };
  const found = findBeats(song);
  const momentOf = (frame) => Math.round(fromMs + frame * 1e3 / FRAMES_PER_SECOND - LATE_MS);
  const bars = found && barsOf3(spectrum, song, found.frames);
  const grid = found && bars && withoutEarly({
    tempoBpm: 0,
    beatsMs: found.frames.map(momentOf),
    beatsABar: bars.beatsABar,
    firsts: bars.firsts,
    confidence: found.confidence
  });
  const energy = energyOf(onsets, spectrum.bands, spectrum.bandCount);
  const barsMs = grid ? grid.firsts.map((beat) => grid.beatsMs[beat] - fromMs) : [];
  const sections = sectionsOf(spectrum, energy, barsMs, toMs - fromMs).map((section) => ({
    ...section,
    startMs: Math.round(section.startMs + fromMs),
    endMs: Math.round(section.endMs + fromMs)
  }));
  const strokes = song.peaks.map((frame) => ({ atMs: momentOf(frame), strength: onsets.all[frame] })).filter(({ atMs, strength }) => strength > ACCENT && atMs >= 0);
  return { fromMs, toMs, grid, sections, strokes, texture: textureOf(spectrum) };
}
function phaseSamples() {
  let parts = [];
  let count = 0;
  let odd = null;
  return {
    add(samples) {
      if (!parts) return;
      const whole2 = odd === null ? samples : Float32Array.from([odd, ...samples]);
      const half = new Float32Array(whole2.length >> 1);
      for (let at3 = 0; at3 < half.length; at3 += 1) half[at3] = (whole2[2 * at3] + whole2[2 * at3 + 1]) / 2;
      odd = whole2.length % 2 === 1 ? whole2.at(-1) : null;
      parts.push(half);
      count += half.length;
      if (count / PHASE_RATE * 1e3 > LONGEST_TAILORED_MS) parts = null;
    },
    all: () => parts && joined(parts, count)
  };
}
function jointsIn(facts2, pieces, samples) {
  if (!samples || pieces.every(({ texture }) => texture.moments.length === 0)) return null;
  const moments2 = [];
  const perSecond = FRAMES_PER_SECOND / PITCH_STRIDE;
  for (const { fromMs, texture } of pieces) {
    const first = Math.round(fromMs / 1e3 * perSecond);
    texture.moments.forEach((moment, at3) => moments2[first + at3] = moment);
  }
  const lengthMs = samples.length * 1e3 / PHASE_RATE;
  const { beats } = facts2;
  if (beats && !isDoubtful(beats)) {
    const firsts = new Set(beats.firsts);
    let place = 0;
    const inBar = beats.beatsMs.map((_, beat) => place = firsts.has(beat) ? 0 : place + 1);
    return jointsOf(moments2, beats.beatsMs, inBar, beats.beatsABar, samples);
  }
  const grid = Array.from({ length: Math.floor(lengthMs / GRID_MS2) }, (_, at3) => at3 * GRID_MS2);
  return jointsOf(moments2, grid, null, 4, samples);
}
function withoutEarly(grid) {
  const early = grid.beatsMs.filter((atMs) => atMs < 0).length;
  return {
    ...grid,
    beatsMs: grid.beatsMs.slice(early),
    firsts: grid.firsts.filter((beat) => beat >= early).map((beat) => beat - early)
  };
}
function factsOf(loudness, pieces) {
  const { heardFromMs, heardToMs } = heardWithin(loudness.curve);
  const owned = pieces.map((piece, index) => {
    const halfMs = OVERLAP_SECONDS * 1e3 / 2;
    return {
      piece,
      fromMs: index === 0 ? -Infinity : piece.fromMs + halfMs,
      toMs: index === pieces.length - 1 ? Infinity : piece.toMs - halfMs
    };
  });
  const within2 = (atMs, { fromMs, toMs }) => atMs >= fromMs && atMs < toMs;
  return {
    loudness,
    heardFromMs,
    heardToMs,
    beats: joinedGrids(owned.map((one) => ({ grid: one.piece.grid, holds: (atMs) => within2(atMs, one) }))),
    sections: owned.flatMap(
      (one) => one.piece.sections.flatMap((section) => {
        const startMs = Math.max(section.startMs, one.fromMs === -Infinity ? 0 : one.fromMs);
        const endMs = Math.min(section.endMs, one.toMs);
        return endMs - startMs > 500 ? [{ ...section, startMs, endMs }] : [];
      })
    ),
    energy: energyCurve(loudness.curve),
    accentsMs: owned.flatMap((one) => one.piece.strokes.flatMap(({ atMs }) => within2(atMs, one) ? [atMs] : []))
  };
}
function joinedGrids(pieces) {
  const beatsMs = [];
  const firsts = [];
  let [confidence, counted2] = [0, 0];
  for (const { grid, holds } of pieces) {
    if (!grid) continue;
    const own = new Set(grid.firsts);
    grid.beatsMs.forEach((atMs, beat) => {
      const last = beatsMs.at(-1);
      if (!holds(atMs) || last !== void 0 && atMs - last < 180) return;
      if (own.has(beat)) firsts.push(beatsMs.length);
      beatsMs.push(atMs);
    });
    confidence += grid.confidence * grid.beatsMs.length;
    counted2 += grid.beatsMs.length;
  }
  const first = pieces.find(({ grid }) => grid)?.grid;
  if (!first || beatsMs.length < 4) return null;
  return {
    tempoBpm: medianTempo(beatsMs),
    beatsMs,
    beatsABar: first.beatsABar,
    firsts,
    confidence: Math.round(100 * confidence / counted2) / 100
  };
}
function medianTempo(beatsMs) {
  const span = Math.min(8, beatsMs.length - 1);
  const gaps = beatsMs.slice(span).map((atMs, beat) => (atMs - beatsMs[beat]) / span);
  const sorted2 = gaps.toSorted((a, b) => a - b);
  return Math.round(6e4 * 10 / sorted2[sorted2.length >> 1]) / 10;
}
var HEARD_ABOVE_LUFS = -60;
function heardWithin(curve) {
  const heard = (tenths2) => tenths2 / 10 > HEARD_ABOVE_LUFS;
  const first = curve.findIndex(heard);
  const last = curve.findLastIndex(heard);
  const msOf = (point) => point * 1e3 / CURVE_PER_SECOND;
  return { heardFromMs: first < 0 ? 0 : msOf(first), heardToMs: last < 0 ? msOf(curve.length) : msOf(last + 1) };
}
function energyCurve(curve) {
  const heard = curve.filter((tenths2) => tenths2 > -600).toSorted((a, b) => a - b);
  if (heard.length === 0) return curve.map(() => 0);
  const loud = heard[Math.floor(heard.length * 0.95)];
  const quiet = Math.min(heard[Math.floor(heard.length * 0.05)], loud - 180);
  return curve.map((_, at3) => {
    const around2 = curve.slice(Math.max(0, at3 - 2), at3 + 3);
    const level = around2.reduce((sum, tenths2) => sum + Math.max(quiet, tenths2), 0) / around2.length;
    return Math.round(100 * Math.max(0, Math.min(1, (level - quiet) / (loud - quiet))));
  });
}
function energyOf(onsets, bands, bandCount) {
  const perMoment = FRAMES_PER_SECOND / 2;
  const levels = Array.from({ length: Math.ceil(onsets.all.length / perMoment) }, (_, moment) => {
    const [from, to] = [
      Math.round(moment * perMoment),
      Math.min(onsets.all.length, Math.round((moment + 1) * perMoment))
    ];
    let sum = 0;
    for (let at3 = from * bandCount; at3 < to * bandCount; at3 += 1) sum += bands[at3];
    return sum / Math.max(1, (to - from) * bandCount);
  });
  const sorted2 = levels.toSorted((a, b) => a - b);
  const loud = sorted2[Math.floor(sorted2.length * 0.95)] ?? 0;
  const quiet = sorted2[Math.floor(sorted2.length * 0.05)] ?? 0;
  return levels.map((level) => Math.max(0, Math.min(1, (level - quiet) / Math.max(1e-6, loud - quiet))));
}

// src/core/sound/voice/stage.ts
var NOTHING = new Float32Array(0);
function joined2(...parts) {
  const there = parts.filter((part) => part.length > 0);
  if (there.length <= 1) return there[0] ?? NOTHING;
  const all = new Float32Array(there.reduce((sum, part) => sum + part.length, 0));
  let at3 = 0;
  for (const part of there) {
    all.set(part, at3);
    at3 += part.length;
  }
  return all;
}

// src/core/sound/voice/low-cut.ts
var BELOW_HZ = 80;
var QUALITIES = [0.541196100146197, 1.3065629648763766];
function lowCut(rate) {
  const filters = QUALITIES.map((quality) => highPass(BELOW_HZ, quality, rate));
  return {
    push(samples) {
      const out2 = Float32Array.from(samples);
      for (const filter of filters) filter(out2);
      return out2;
    },
    finish: () => NOTHING
  };
}
function highPass(hz, quality, rate) {
  const w = 2 * Math.PI * hz / rate;
  const alpha = Math.sin(w) / (2 * quality);
  const a0 = 1 + alpha;
  const b = (1 + Math.cos(w)) / 2 / a0;
  const a1 = -2 * Math.cos(w) / a0;
  const a2 = (1 - alpha) / a0;
  let [x1, x2, y1, y2] = [0, 0, 0, 0];
  return (samples) => {
    for (let at3 = 0; at3 < samples.length; at3 += 1) {
      const x = samples[at3];
      const y = b * (x - 2 * x1 + x2) - a1 * y1 - a2 * y2;
      x2 = x1;
      x1 = x;
      y2 = y1;
      y1 = y;
      samples[at3] = y;
    }
  };
}

// src/core/sound/voice/voice-levels.ts
var { abs: abs5, max: max5, sqrt: sqrt4, log10: log102 } = Math;
var LEVEL_MS = 10;
function levelMeter(rate) {
  const edge = (step2) => Math.round(step2 * rate * LEVEL_MS / 1e3);
  const weigh = kWeighting(rate);
  const rmsDb = [];
  const weighted = [];
  const peaks = [];
  let waiting = NOTHING;
  const take = (samples) => {
    const squares = weigh(samples);
    let [power, heard, peak] = [0, 0, 0];
    for (let at3 = 0; at3 < samples.length; at3 += 1) {
      const size = abs5(samples[at3]);
      power += size * size;
      heard += squares[at3];
      if (size > peak) peak = size;
    }
    rmsDb.push(decibels(sqrt4(power / samples.length)));
    weighted.push(heard / samples.length);
    peaks.push(peak);
  };
  return {
    push(samples) {
      waiting = joined2(waiting, samples);
      let from = 0;
      for (; ; ) {
        const length = edge(peaks.length + 1) - edge(peaks.length);
        if (from + length > waiting.length) break;
        take(waiting.subarray(from, from + length));
        from += length;
      }
      waiting = waiting.slice(from);
    },
    finish() {
      if (waiting.length > 0) take(waiting);
      waiting = NOTHING;
      return {
        rmsDb: Float32Array.from(rmsDb),
        weighted: Float32Array.from(weighted),
        peak: Float32Array.from(peaks)
      };
    }
  };
}
var decibels = (size) => 20 * log102(max5(1e-6, size));

// src/core/sound/voice/phrases.ts
var SHORTEST_PAUSE_MS = 130;
var SHORTEST_PHRASE_MS = 70;
var BEFORE_MS = 30;
var AFTER_MS = 50;
var SHARE2 = 0.35;
var DEEPEST_DB = 38;
var HIGHEST_DB = 14;
var LEAST_SPAN_DB = 8;
var SILENT_DB = -75;
function speechThreshold(rmsDb) {
  const sorted2 = Float32Array.from(rmsDb).sort();
  if (sorted2.length === 0) return null;
  const loud = sorted2[Math.floor(sorted2.length * 0.97)];
  const quiet = Math.max(SILENT_DB, sorted2[Math.floor(sorted2.length * 0.08)]);
  if (loud < -60) return null;
  if (loud - quiet < LEAST_SPAN_DB) return quiet - 1;
  return Math.min(loud - HIGHEST_DB, Math.max(loud - DEEPEST_DB, quiet + SHARE2 * (loud - quiet)));
}
function phrasesOf(rmsDb) {
  const least = speechThreshold(rmsDb);
  if (least === null) return [];
  const runs = [];
  for (let at3 = 0; at3 < rmsDb.length; at3 += 1) {
    if (rmsDb[at3] < least) continue;
    const last = runs.at(-1);
    if (last && at3 - last.to < SHORTEST_PAUSE_MS / LEVEL_MS) last.to = at3 + 1;
    else runs.push({ from: at3, to: at3 + 1 });
  }
  const end = rmsDb.length * LEVEL_MS;
  return runs.filter(({ from, to }) => (to - from) * LEVEL_MS >= SHORTEST_PHRASE_MS).map(({ from, to }) => ({
    fromMs: Math.max(0, from * LEVEL_MS - BEFORE_MS),
    toMs: Math.min(end, to * LEVEL_MS + AFTER_MS)
  }));
}

// src/server/listening/each-sample.ts
async function eachSample(file, channels2, rate, take, signal) {
  const running = startFfmpeg(
    [...GUARDED_INPUT, "-i", file, "-map", "0:a:0", "-ac", String(channels2), "-ar", String(rate), "-f", "f32le", "-"],
    signal
  );
  running.process.stdin.end();
  const frameBytes = 4 * channels2;
  let left = Buffer.alloc(0);
  try {
    for await (const chunk of running.process.stdout) {
      const bytes = left.length > 0 ? Buffer.concat([left, chunk]) : chunk;
      const whole2 = bytes.length - bytes.length % frameBytes;
      take(new Float32Array(Uint8Array.from(bytes.subarray(0, whole2)).buffer));
      left = bytes.subarray(whole2);
    }
    await running.finished;
  } catch (cause) {
    if (cause instanceof FfmpegError && cause.details !== "")
      throw new UnusableFileError("The sound cannot be read to its end; the file is damaged.", { cause });
    throw cause;
  }
}

// src/server/listening/hear-file.ts
var LOUDNESS_RATE = 48e3;
var MOST_PHRASES = 5e3;
async function hearFile(file, wantsBeats, signal) {
  const meter = loudnessMeter(LOUDNESS_RATE);
  await eachSample(file, 2, LOUDNESS_RATE, (samples) => meter.add(samples), signal);
  const hearing = songHearing(wantsBeats);
  const speech = levelMeter(LISTENING_RATE2);
  const rumble = lowCut(LISTENING_RATE2);
  if (wantsBeats)
    await eachSample(
      file,
      1,
      LISTENING_RATE2,
      (samples) => {
        hearing.add(samples);
        speech.push(rumble.push(samples));
      },
      signal
    );
  const heard = hearing.finish(meter.finish());
  const phrases = wantsBeats ? phrasesOf(speech.finish().rmsDb) : [];
  return phrases.length > 0 && phrases.length <= MOST_PHRASES ? { ...heard, phrases } : heard;
}

// src/server/focus/find-focus.ts
import sharp7 from "sharp";

// src/core/focus/saliency.ts
function saliencyMap(rgb, width, height, fine) {
  const channels2 = labOf(rgb);
  const map = new Float32Array(width * height);
  for (const channel2 of channels2) {
    const barrier = barrierDistance(channel2, width, height);
    for (let at3 = 0; at3 < map.length; at3 += 1) map[at3] += barrier[at3];
  }
  normalise(map);
  const unlike = unlikeBorder(channels2, width, height);
  for (let at3 = 0; at3 < map.length; at3 += 1) map[at3] = map[at3] + unlike[at3];
  normalise(map);
  if (fine) addSharpness(map, fine);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const away = Math.hypot((x + 0.5) / width - 0.5, (y + 0.5) / height - 0.5);
      map[y * width + x] *= Math.max(0, 1 - 0.9 * away * away);
    }
  normalise(map);
  return map.map((value) => 1 / (1 + Math.exp(-10 * (value - 0.5))));
}
var LEFT_OUT2 = 0.045;
var LEAST_COVERED = 6e-4;
var MOST_COVERED = 0.55;
function salientBox(map, width, height) {
  const mean3 = map.reduce((sum, value) => sum + value, 0) / map.length;
  const highest = map.reduce((most, value) => Math.max(most, value), 0);
  const threshold = Math.max(1.6 * mean3, 0.5 * highest);
  const across = new Float64Array(width);
  const down = new Float64Array(height);
  let count = 0;
  for (let at3 = 0; at3 < map.length; at3 += 1) {
    if (map[at3] < threshold) continue;
    across[at3 % width] += map[at3];
    down[Math.floor(at3 / width)] += map[at3];
    count += 1;
  }
  if (count < LEAST_COVERED * map.length || count > MOST_COVERED * map.length) return null;
  const [x0, x1] = middleOf(across);
  const [y0, y1] = middleOf(down);
  return { left: x0 / width, top: y0 / height, width: (x1 - x0) / width, height: (y1 - y0) / height };
}
function middleOf(weights) {
  const total = weights.reduce((sum2, weight) => sum2 + weight, 0);
  let sum = 0;
  let begin = 0;
  let end = weights.length;
  for (let at3 = 0; at3 < weights.length; at3 += 1) {
    const before = sum;
    sum += weights[at3];
    if (before <= LEFT_OUT2 * total && sum > LEFT_OUT2 * total) begin = at3;
    if (before < (1 - LEFT_OUT2) * total && sum >= (1 - LEFT_OUT2) * total) end = at3 + 1;
  }
  return [begin, end];
}
function addSharpness(map, fine) {
  const mean3 = fine.reduce((sum, value) => sum + value, 0) / fine.length;
  const spread2 = Math.sqrt(fine.reduce((sum, value) => sum + (value - mean3) ** 2, 0) / fine.length);
  const weight = mean3 > 0 ? Math.min(1.2, Math.max(0, spread2 / mean3 - 0.7)) : 0;
  if (weight === 0) return;
  const own = fine.map((value) => Math.min(value, mean3 + 3 * spread2));
  normalise(own);
  for (let at3 = 0; at3 < map.length; at3 += 1) map[at3] = map[at3] * (1 - 0.3 * weight) + weight * own[at3];
  normalise(map);
}
var PASSES = 3;
function barrierDistance(values, width, height) {
  const distance2 = new Float32Array(values.length).fill(Infinity);
  const high = values.slice();
  const low = values.slice();
  for (let x = 0; x < width; x += 1) distance2[x] = distance2[(height - 1) * width + x] = 0;
  for (let y = 0; y < height; y += 1) distance2[y * width] = distance2[y * width + width - 1] = 0;
  const relax = (at3, from) => {
    const value = values[at3];
    const newHigh = Math.max(high[from], value);
    const newLow = Math.min(low[from], value);
    if (newHigh - newLow >= distance2[at3]) return;
    distance2[at3] = newHigh - newLow;
    high[at3] = newHigh;
    low[at3] = newLow;
  };
  for (let pass = 0; pass < PASSES; pass += 1) {
    if (pass % 2 === 0)
      for (let y = 1; y < height - 1; y += 1)
        for (let x = 1; x < width - 1; x += 1) {
          relax(y * width + x, y * width + x - 1);
          relax(y * width + x, (y - 1) * width + x);
        }
    else
      for (let y = height - 2; y > 0; y -= 1)
        for (let x = width - 2; x > 0; x -= 1) {
          relax(y * width + x, y * width + x + 1);
          relax(y * width + x, (y + 1) * width + x);
        }
  }
  return distance2.map((value) => Number.isFinite(value) ? value : 0);
}
function unlikeBorder(channels2, width, height) {
  const depth = Math.max(1, Math.round(0.1 * Math.min(width, height)));
  const borders = [[], [], [], []];
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const at3 = y * width + x;
      if (y < depth) borders[0].push(at3);
      if (y >= height - depth) borders[1].push(at3);
      if (x < depth) borders[2].push(at3);
      if (x >= width - depth) borders[3].push(at3);
    }
  const maps = borders.map((border) => {
    const stats = channels2.map((channel2) => {
      const mean3 = border.reduce((sum, at3) => sum + channel2[at3], 0) / border.length;
      const spread2 = border.reduce((sum, at3) => sum + (channel2[at3] - mean3) ** 2, 0) / border.length;
      return { mean: mean3, scale: 1 / (spread2 + 30) };
    });
    const map = new Float32Array(width * height);
    for (let at3 = 0; at3 < map.length; at3 += 1) {
      let sum = 0;
      channels2.forEach((channel2, index) => sum += (channel2[at3] - stats[index].mean) ** 2 * stats[index].scale);
      map[at3] = Math.sqrt(sum);
    }
    normalise(map);
    return map;
  });
  const out2 = new Float32Array(width * height);
  for (let at3 = 0; at3 < out2.length; at3 += 1) {
    const values = maps.map((map) => map[at3]);
    out2[at3] = values.reduce((sum, value) => sum + value, 0) - Math.max(...values);
  }
  normalise(out2);
  return out2;
}
function normalise(map) {
  let [least, most] = [Infinity, -Infinity];
  for (const value of map) {
    least = Math.min(least, value);
    most = Math.max(most, value);
  }
  const range2 = most - least;
  for (let at3 = 0; at3 < map.length; at3 += 1) map[at3] = range2 > 0 ? (map[at3] - least) / range2 : 0;
}
function labOf(rgb) {
  const count = rgb.length / 3;
  const planes = [new Float32Array(count), new Float32Array(count), new Float32Array(count)];
  const linear2 = Float32Array.from(
    { length: 256 },
    (_, value) => value <= 10 ? value / 255 / 12.92 : ((value / 255 + 0.055) / 1.055) ** 2.4
  );
  const root = (t) => t > 8856e-6 ? Math.cbrt(t) : 7.787 * t + 16 / 116;
  for (let at3 = 0; at3 < count; at3 += 1) {
    const [r, g, b] = [linear2[rgb[3 * at3]], linear2[rgb[3 * at3 + 1]], linear2[rgb[3 * at3 + 2]]];
    const x = root((0.4124 * r + 0.3576 * g + 0.1805 * b) / 0.9505);
    const y = root(0.2126 * r + 0.7152 * g + 0.0722 * b);
    const z = root((0.0193 * r + 0.1192 * g + 0.9505 * b) / 1.089);
    planes[0][at3] = 116 * y - 16;
    planes[1][at3] = 500 * (x - y);
    planes[2][at3] = 200 * (y - z);
  }
  return planes;
}

// src/core/focus/sharpness.ts
var COLUMNS = 16;
var ROWS = 12;
var SHARPEST = 0.12;
var HALF = 9;
function sharpnessOf(grey, width, height, within2 = { left: 0, top: 0, width: 1, height: 1 }) {
  const box2 = onPicture(within2);
  const [x0, y0] = [Math.floor(box2.left * width), Math.floor(box2.top * height)];
  const [w, h] = [Math.floor(box2.width * width), Math.floor(box2.height * height)];
  if (w < 8 || h < 8) return 0;
  const columns2 = Math.min(COLUMNS, Math.floor(w / 8));
  const rows3 = Math.min(ROWS, Math.floor(h / 8));
  const energies = [];
  for (let row = 0; row < rows3; row += 1)
    for (let column2 = 0; column2 < columns2; column2 += 1) {
      let [sum, count] = [0, 0];
      const [top, bottom2] = [y0 + Math.floor(row * h / rows3), y0 + Math.floor((row + 1) * h / rows3)];
      const [left, right2] = [x0 + Math.floor(column2 * w / columns2), x0 + Math.floor((column2 + 1) * w / columns2)];
      for (let y = Math.max(1, top); y < Math.min(height - 1, bottom2); y += 1)
        for (let x = Math.max(1, left); x < Math.min(width - 1, right2); x += 1) {
          const at3 = y * width + x;
          sum += laplacianAt(grey, width, at3) ** 2;
          count += 1;
        }
      energies.push(count > 0 ? Math.sqrt(sum / count) : 0);
    }
  energies.sort((a, b) => b - a);
  const best2 = energies.slice(0, Math.max(1, Math.round(SHARPEST * energies.length)));
  const mean3 = best2.reduce((sum, value) => sum + value, 0) / best2.length;
  return mean3 / (mean3 + HALF);
}
function finenessOf(grey, width, height, columns2, rows3) {
  const sums = new Float32Array(columns2 * rows3);
  const counts = new Uint32Array(columns2 * rows3);
  for (let y = 1; y < height - 1; y += 1)
    for (let x = 1; x < width - 1; x += 1) {
      const cell = Math.floor(y * rows3 / height) * columns2 + Math.floor(x * columns2 / width);
      sums[cell] += laplacianAt(grey, width, y * width + x) ** 2;
      counts[cell] += 1;
    }
  const fine = sums.map((sum, cell) => Math.sqrt(sum / Math.max(1, counts[cell])));
  smooth(fine, columns2, rows3, Math.max(1, Math.max(columns2, rows3) / 40));
  return fine;
}
function laplacianAt(grey, width, at3) {
  const value = 2 * grey[at3];
  return Math.abs(value - grey[at3 - 1] - grey[at3 + 1]) + Math.abs(value - grey[at3 - width] - grey[at3 + width]);
}

// src/server/focus/models.ts
import { readFile as readFile5 } from "node:fs/promises";
import path2 from "node:path";
var loaded = /* @__PURE__ */ new Map();
function loadModel(name) {
  let model = loaded.get(name);
  if (!model) loaded.set(name, model = load(name));
  return model;
}
async function load(name) {
  const packages = path2.join(projectFolder(), "node_modules");
  const [tf, { loadGraphModel }, { setWasmPaths }] = await Promise.all([
    import("@tensorflow/tfjs-core"),
    import("@tensorflow/tfjs-converter"),
    import("@tensorflow/tfjs-backend-wasm")
  ]);
  setWasmPaths(`${path2.join(packages, "@tensorflow/tfjs-backend-wasm/wasm-out")}/`);
  await tf.setBackend("wasm");
  const base2 = path2.join(packages, "@vladmandic/human/models", name);
  const description = JSON.parse(await readFile5(`${base2}.json`, "utf8"));
  const weights = await readFile5(`${base2}.bin`);
  const graph = await loadGraphModel({
    load: () => Promise.resolve({
      modelTopology: description.modelTopology,
      weightSpecs: description.weightsManifest.flatMap((group) => group.weights),
      weightData: weights.buffer.slice(weights.byteOffset, weights.byteOffset + weights.byteLength),
      format: description.format
    })
  });
  return {
    async run(input, sidePx, output) {
      const tensor = tf.tensor4d(input, [1, sidePx, sidePx, 3]);
      const made2 = graph.execute(tensor, output);
      const tensors = Array.isArray(made2) ? made2 : [made2];
      try {
        return await Promise.all(tensors.map(async (one) => await one.data()));
      } finally {
        tf.dispose([tensor, ...tensors]);
      }
    }
  };
}

// src/server/focus/rgb-picture.ts
import sharp6 from "sharp";
function resized({ rgb, widthPx, heightPx }, part, toWidthPx, toHeightPx, sidePx) {
  const left = Math.round(part.left * widthPx);
  const top = Math.round(part.top * heightPx);
  return sharp6(rgb, { raw: { width: widthPx, height: heightPx, channels: 3 } }).extract({
    left,
    top,
    width: Math.max(1, Math.min(widthPx - left, Math.round(part.width * widthPx))),
    height: Math.max(1, Math.min(heightPx - top, Math.round(part.height * heightPx)))
  }).resize(Math.max(1, toWidthPx), Math.max(1, toHeightPx), { fit: "fill" }).extend({
    right: sidePx - Math.max(1, toWidthPx),
    bottom: sidePx - Math.max(1, toHeightPx),
    background: "#000000"
  }).raw().toBuffer();
}
function quarterTurned({ rgb, widthPx, heightPx }, way) {
  const turned2 = new Uint8Array(rgb.length);
  for (let y = 0; y < heightPx; y += 1)
    for (let x = 0; x < widthPx; x += 1) {
      const [toX, toY] = way === "clockwise" ? [heightPx - 1 - y, x] : [y, widthPx - 1 - x];
      const [from, to] = [3 * (y * widthPx + x), 3 * (toY * heightPx + toX)];
      turned2[to] = rgb[from];
      turned2[to + 1] = rgb[from + 1];
      turned2[to + 2] = rgb[from + 2];
    }
  return { widthPx: heightPx, heightPx: widthPx, rgb: turned2 };
}

// src/server/focus/find-faces.ts
var SIDE2 = 256;
var LEAST_SCORE = 0.75;
var SAME_FACE = 0.25;
var PARTS_FROM_PX = 700;
var PART2 = 0.58;
var ANCHORS2 = [
  [16, 2],
  [8, 6]
].flatMap(
  ([places2, each]) => Array.from({ length: places2 * places2 * each }, (_, index) => {
    const place = Math.floor(index / each);
    const step2 = SIDE2 / places2;
    return [(place % places2 + 0.5) * step2, (Math.floor(place / places2) + 0.5) * step2];
  })
);
async function findFaces(picture2) {
  const model = await loadModel("blazeface");
  const parts = [{ left: 0, top: 0, width: 1, height: 1 }];
  if (Math.max(picture2.widthPx, picture2.heightPx) >= PARTS_FROM_PX)
    for (const top of [0, 1 - PART2])
      for (const left of [0, 1 - PART2]) parts.push({ left, top, width: PART2, height: PART2 });
  const found = [];
  for (const [index, part] of parts.entries())
    for (const face of await facesIn(model, picture2, part)) {
      const { left, top, width, height } = face;
      const inner = index === 0 || touches(left, width, part.left, part.width) && touches(top, height, part.top, part.height);
      if (inner) found.push(face);
    }
  return distinct(found, SAME_FACE);
}
var SURE_SCORE = 0.9;
var SURER_BY = 0.03;
var LEAST_HEIGHT = 0.12;
async function turnForFaces(picture2, own) {
  const model = await loadModel("blazeface");
  let best2 = null;
  for (const way of ["clockwise", "counter-clockwise"]) {
    const turned2 = quarterTurned(picture2, way);
    for (const face of await facesIn(model, turned2, WHOLE6)) {
      const heightPx = face.height * turned2.heightPx;
      if (face.score < Math.max(SURE_SCORE, own + SURER_BY) || heightPx < LEAST_HEIGHT * Math.min(turned2.widthPx, turned2.heightPx))
        continue;
      if (!best2 || face.score > best2.score) best2 = { way, score: face.score };
    }
  }
  return best2?.way ?? null;
}
var WHOLE6 = { left: 0, top: 0, width: 1, height: 1 };
function touches(from, size, partFrom, partSize) {
  const clear = 0.01;
  return (partFrom === 0 || from > partFrom + clear) && (partFrom + partSize > 0.999 || from + size < partFrom + partSize - clear);
}
async function facesIn(model, picture2, part) {
  const [partW, partH] = [part.width * picture2.widthPx, part.height * picture2.heightPx];
  const scale = SIDE2 / Math.max(partW, partH);
  const input = await resized(picture2, part, Math.round(partW * scale), Math.round(partH * scale), SIDE2);
  const outputs = await model.run(
    Float32Array.from(input, (value) => value / 127.5 - 1),
    SIDE2
  );
  const [scoresFew, scoresMany, boxesFew, boxesMany] = outputs.toSorted((a, b) => a.length - b.length);
  const found = [];
  const many3 = scoresMany.length;
  ANCHORS2.forEach(([x, y], index) => {
    const few = index - many3;
    const score = 1 / (1 + Math.exp(-(few < 0 ? scoresMany[index] : scoresFew[few])));
    if (score < LEAST_SCORE) return;
    const box2 = few < 0 ? boxesMany.subarray(16 * index) : boxesFew.subarray(16 * few);
    const [cx, cy, w, h] = [(box2[0] + x) / scale, (box2[1] + y) / scale, box2[2] / scale, box2[3] / scale];
    if (!(w > 0 && h > 0)) return;
    found.push({
      score,
      left: part.left + (cx - w / 2) / picture2.widthPx,
      top: part.top + (cy - h / 2) / picture2.heightPx,
      width: w / picture2.widthPx,
      height: h / picture2.heightPx
    });
  });
  return distinct(found, SAME_FACE);
}
function distinct(found, same) {
  const kept3 = [];
  for (const box2 of found.toSorted((a, b) => b.score - a.score))
    if (!kept3.some((other) => likeness(box2, other) > same)) kept3.push(box2);
  return kept3;
}

// src/server/focus/find-subjects.ts
var SIDE3 = 512;
var LEAST_SCORE2 = 0.45;
var SAME2 = 0.6;
var PERSON = 0;
var ANIMALS = { first: 14, last: 23 };
async function findSubjects(picture2) {
  const model = await loadModel("centernet");
  const input = await resized(picture2, { left: 0, top: 0, width: 1, height: 1 }, SIDE3, SIDE3, SIDE3);
  const [detections] = await model.run(Float32Array.from(input), SIDE3, "tower_0/detections");
  const found = [];
  for (let at3 = 0; at3 + 5 < detections.length; at3 += 6) {
    const [x1, y1, x2, y2, score, name] = detections.subarray(at3, at3 + 6);
    const isAnimal = name >= ANIMALS.first && name <= ANIMALS.last;
    if (score < LEAST_SCORE2 || name !== PERSON && !isAnimal || x2 <= x1 || y2 <= y1) continue;
    const box2 = onPicture({ left: x1 / SIDE3, top: y1 / SIDE3, width: (x2 - x1) / SIDE3, height: (y2 - y1) / SIDE3 });
    if (box2.width > 0 && box2.height > 0) found.push({ ...box2, score, kind: isAnimal ? "animal" : "person" });
  }
  return distinct(found, SAME2);
}

// src/server/focus/find-focus.ts
var LOOKED_AT_PX = 1024;
var SALIENCY_PX = 160;
var SURE = 0.93;
async function findFocus(file) {
  const picture2 = await smallCopy2(file);
  const grey = await sharp7(picture2.rgb, { raw: { width: picture2.widthPx, height: picture2.heightPx, channels: 3 } }).greyscale().raw().toBuffer();
  const sharpness = (within2) => rounded(sharpnessOf(grey, picture2.widthPx, picture2.heightPx, within2));
  const faces = await findFaces(picture2);
  const subjects = await findSubjects(picture2);
  const surest = Math.max(0, ...faces.map(({ score }) => score));
  const way = surest >= SURE ? null : await turnForFaces(picture2, surest);
  return {
    faces: faces.map((face) => ({ ...roundedBox(face), score: rounded(face.score), sharpness: sharpness(face) })),
    subjects: subjects.map((subject) => ({ ...subject, ...roundedBox(subject), score: rounded(subject.score) })),
    salient: await salient(picture2, grey),
    sharpness: sharpness(),
    ...way && { sideways: way }
  };
}
async function smallCopy2(file) {
  const picture2 = await openPicture(file, LOOKED_AT_PX, { limitInputPixels: MOST_PIXELS, failOn: "none" });
  const { data, info } = await picture2.resize(LOOKED_AT_PX, LOOKED_AT_PX, { fit: "inside", withoutEnlargement: true }).toColourspace("srgb").flatten({ background: "#808080" }).removeAlpha().raw({ depth: "uchar" }).toBuffer({ resolveWithObject: true });
  const rgb = info.channels === 3 ? data : Buffer.from(
    Array.from({ length: info.width * info.height * 3 }, (_, at3) => data[Math.floor(at3 / 3) * info.channels])
  );
  return { widthPx: info.width, heightPx: info.height, rgb };
}
async function salient(picture2, grey) {
  const scale = SALIENCY_PX / Math.max(picture2.widthPx, picture2.heightPx);
  const [w, h] = [Math.max(8, Math.round(picture2.widthPx * scale)), Math.max(8, Math.round(picture2.heightPx * scale))];
  const small = await resizedExactly(picture2, w, h);
  const box2 = salientBox(saliencyMap(small, w, h, finenessOf(grey, picture2.widthPx, picture2.heightPx, w, h)), w, h);
  return box2 && roundedBox(box2);
}
function resizedExactly({ rgb, widthPx, heightPx }, w, h) {
  return sharp7(rgb, { raw: { width: widthPx, height: heightPx, channels: 3 } }).resize(w, h, { fit: "fill" }).raw().toBuffer();
}
var rounded = (value) => Math.round(value * 1e4) / 1e4;
var roundedBox = ({ left, top, width, height }) => ({
  left: rounded(left),
  top: rounded(top),
  width: rounded(width),
  height: rounded(height)
});

// src/server/focus/look-and-find.ts
async function lookAndFind(file) {
  const { facts: facts2 } = await lookAtFile(file);
  if (facts2.kind === "picture") return { ...facts2, focus: await findFocus(file) };
  if (facts2.kind === "clip" && !facts2.hasSound) return facts2;
  return { ...facts2, listening: await hearFile(file, facts2.kind === "sound") };
}

// src/server/blobs/content-hash.ts
import { createHash } from "node:crypto";
import { createReadStream } from "node:fs";
var ID_DIGITS = 64;
function contentHash() {
  const hash = createHash("blake2b512");
  return {
    update: (bytes) => void hash.update(bytes),
    id: () => assetId(hash.digest("hex").slice(0, ID_DIGITS))
  };
}
async function hashOfFile(file) {
  const hash = contentHash();
  for await (const bytes of createReadStream(file, { highWaterMark: 1024 * 1024 }))
    hash.update(bytes);
  return hash.id();
}

// mounts-tmp.mts
var [shape2 = "16:9", set = "mixed", only = "", out = "/tmp/mounts.png", moments = ""] = process.argv.slice(2);
var demo = readdirSync("demo/files").filter((n2) => /^PE.*jpg$/.test(n2)).map((n2) => "demo/files/" + n2);
var ph = ["p1", "p2", "p3", "p4", "p5"].map((n2) => `/tmp/ph/${n2}.jpg`);
var crowd = "node_modules/@vladmandic/human/assets/samples.jpg";
var sets = { mixed: [...ph, ...demo].slice(0, 26), demo, upright: readdirSync("/tmp/set-upright").map((n2) => "/tmp/set-upright/" + n2), wide: readdirSync("/tmp/set-wide").map((n2) => "/tmp/set-wide/" + n2), tiny: readdirSync("/tmp/set-tiny").map((n2) => "/tmp/set-tiny/" + n2) };
var facts = /* @__PURE__ */ new Map();
var files = /* @__PURE__ */ new Map();
var order = [];
var add = async (f) => {
  const id = await hashOfFile(f);
  if (!facts.has(id)) {
    files.set(id, f);
    facts.set(id, await lookAndFind(f));
    order.push(id);
  }
  return id;
};
for (const f of sets[set]) await add(f);
var many2 = await add(crowd);
order.pop();
var logo = await add("demo/files/regatta-emblem.png");
order.pop();
var look = JSON.parse(process.env.LOOK ?? "null") ?? { letters: { title: "fraunces", text: "instrument", weight: 500, spacing: 0 }, palette: { ink: "#1d2230", paper: "#f6f1e7", accent: "#b5472f", soft: "#cdbfa6" } };
var base = emptyShow("x", process.env.TITLE ?? "Midsummer on the island");
base = { ...base, frame: frameOfShape(shape2, base.frame) };
var n = 0;
var newId = () => "n" + (n += 1);
var drawing = await openNodeDrawing();
var store = storeFor(drawing, createFileReader((id) => files.get(id), facts));
GlobalFonts.registerFromPath("public/fonts/instrument-sans-latin-wght-normal.ttf", "Label");
var area3 = 300 * 170;
var ar = base.frame.widthPx / base.frame.heightPx;
var ch = Math.round(Math.sqrt(area3 / ar) / 2) * 2;
var cw = Math.round(ch * ar / 2) * 2;
var mounts = SHIPPED_MOUNTS.filter((m) => !only || only.split(",").includes(m.id) || m.shelf === only);
var cells = [];
var painter = createPainter(drawing.kernels, cw, ch);
for (const mount of mounts) {
  const fits = mount.fits(base.frame, look);
  const counts = [...new Set(fits.map(takesOf))];
  const wanted = process.env.COUNTS ? counts : [counts[Math.floor(counts.length / 2)]];
  for (const count of wanted) {
    const ids = mount.id === "face-to-face" ? [many2] : Array.from({ length: Math.max(1, count) }, (_, i) => order[(i + Number(process.env.FROM ?? 0)) % order.length]);
    const slides = ids.map((id) => slideFromAsset(id, facts.get(id), 5e3, newId)).map((s, i) => i === 0 && !/Openers/.test(mount.shelf) ? { ...s, layers: [...s.layers, { kind: "words", id: "w", title: process.env.WORDS ?? "The boat house", subtitle: "Breakfast for forty", place: "bottom" }] } : s);
    const show = { ...base, slides };
    const laid = withMount(groundOf(show, slides.map((s) => s.id), newId), { mount, look, facts, studio: { name: "Harrow Lane Pictures", contact: "hello@harrowlane.example", logo }, newId });
    if (!laid.ok) {
      console.log(mount.id, laid.sentence);
      continue;
    }
    const made2 = laid.show.slides.find((s) => s.mounted);
    const alone = { ...laid.show, slides: [{ ...made2, transition: { kind: "cut" } }], cues: [] };
    const prepared = prepareShow(alone, facts);
    for (const at3 of moments ? moments.split(",").map(Number) : [mount.posterMs]) {
      const plan = planFrame(prepared, Math.min(at3, made2.lengthMs - 40), { widthPx: cw, heightPx: ch });
      await store.prepare(plan);
      for (const [id, e] of store.problems()) console.log(mount.id, files.get(id), e.message);
      cells.push({ label: `${mount.name} ${count} ${at3}`, px: Buffer.from(pixelsOf(drawing.kernels, painter.paint(plan, store)).rgba) });
    }
  }
}
var columns = Math.max(3, Math.floor(1300 / (cw + 8)));
var canvas = createCanvas2(columns * (cw + 8) + 8, Math.ceil(cells.length / columns) * (ch + 24) + 8);
var c = canvas.getContext("2d");
c.fillStyle = "#888";
c.fillRect(0, 0, canvas.width, canvas.height);
c.font = "13px Label";
cells.forEach((cell, i) => {
  const x = 8 + i % columns * (cw + 8), y = 8 + Math.floor(i / columns) * (ch + 24);
  const im = c.createImageData(cw, ch);
  im.data.set(cell.px);
  c.putImageData(im, x, y);
  c.fillStyle = "#000";
  c.fillText(cell.label, x, y + ch + 14);
});
await sharp8(canvas.toBuffer("image/png")).toFile(out);
console.log(cells.length, cw, ch);
process.exit(0);
