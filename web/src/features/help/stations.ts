// A page of help for each station: what it answers, the order of work, what its signs mean.
export type Help = {
  key: string
  title: string
  to: string
  answers: string
  order: readonly string[]
  signs: readonly (readonly [string, string])[]
  care?: string
}

export const HELP: readonly Help[] = [
  {
    key: "round",
    title: "Round",
    to: "/",
    answers: "What is due today, in how few cans, who gets what, and what to leave alone and why.",
    order: [
      "Read the cans from the top: carnivores and plain water first, feed after them.",
      "Mix the can that is named. With a pen, read it; without one, the range stands beside it.",
      "Start pouring and walk the shelf in the order shown. Feel each pot that says check.",
      "Press Heavy if the pot still has water. It is left for another day, and its rhythm learns from it.",
    ],
    signs: [
      ["Check", "due by its days; feel it before you pour"],
      ["Hold", "nothing, or no feed, until what ends it has happened; its reason stands beside it"],
      ["Isolated", "walked last, so that nothing is carried on"],
      ["Ochre text", "mind this before you pour"],
    ],
    care: "Wash hands and cans after isolated pots. The label of a feed and local rules come first.",
  },
  {
    key: "water",
    title: "Water",
    to: "/water",
    answers: "What is in each water, whether the meter is true, and who may drink it.",
    order: [
      "Add each water you can get. One nobody read stands at what its kind usually reads.",
      "Read it if you have a pen. With ppm, say which scale, or let Fenwa narrow it down.",
      "Add the supplier’s report or a hardness test: they say what a pen cannot see.",
      "Read the verdict of each plant, and what would help where it is no.",
    ],
    signs: [
      ["Float left of a leaf", "the plant may drink it by its amount of salt"],
      ["Dashed vessel", "nobody read it; the line below is as wide as its kind may be"],
      ["Not known", "neither good nor bad: chlorine, sodium, fluoride or lime were not told"],
    ],
    care: "Acid goes into water, never water into acid, with gloves and eye protection.",
  },
  {
    key: "mix",
    title: "Mix",
    to: "/mix",
    answers: "What to weigh into this can, what the pen should read then, and whether it does.",
    order: [
      "Choose the pots, or none. The strictest ceiling of the chosen pots rules the can.",
      "Choose feed, water and volume, then a strength by any of its names.",
      "Weigh in the order of the list. A dose too small for the scale goes through a stock.",
      "Read the can, or pour it by its range. Too strong or weak: the rescue says what to add.",
    ],
    signs: [
      ["Dotted number", "press it for its working"],
      [
        "Range behind a number",
        "what it may read, with the water and the product as far as they are known",
      ],
      ["Below the ceiling by", "what is left until the strictest pot says no"],
    ],
    care: "Never mix concentrates with each other undiluted. Keep feed from children, pets and food.",
  },
  {
    key: "pots",
    title: "Pots",
    to: "/pots",
    answers:
      "How salty each root zone is today, when it crosses its ceiling, and what rules the pot.",
    order: [
      "Add pots in one line, as you would say it. A kind is enough.",
      "Log what happens: pours come from the round, looks from the leaf station.",
      "Read one runoff when you can. It teaches the pot, and pots like it.",
      "Open a pot to see its strata: phase, pours, salt, leaves and marks on one time axis.",
    ],
    signs: [
      ["Band", "where four of five such pots would read; it narrows with each reading"],
      ["Line across", "the ceiling of its kind"],
      ["Hatched", "not told, or not known"],
    ],
    care: "Poisonous kinds are named so on their page; “none known” is no promise.",
  },
  {
    key: "flush",
    title: "Flush",
    to: "/flush",
    answers: "Who crosses its ceiling when, which way brings it down, and when a flush may stop.",
    order: [
      "Choose a pot from the list; the one that crosses first stands first.",
      "Compare the ways by litres, minutes and risk, and begin one.",
      "Pour, wait, read what drains, enter it. After each pass you are told what is left.",
      "Stop when two readings agree under the stop, or when litres do nothing more.",
    ],
    signs: [
      ["Diamond", "a reading of the runoff"],
      ["Green zone", "under the stop"],
      [
        "Flat line above the stop",
        "this water cannot go lower: take a purer one, or call it enough",
      ],
    ],
    care: "What runs out holds fertilizer: not into ponds or streams. Mind sockets and pumps near water.",
  },
  {
    key: "leaf",
    title: "Leaf",
    to: "/leaf",
    answers: "What the plant did with it: each leaf against that plant’s own usual.",
    order: [
      "Log a look: drag the new leaf to its length, tap the marks where they sit.",
      "Nothing changed: the same as last time is one tap.",
      "Wait for the first leaf that formed after a change. The second is the first that counts.",
      "Ask of a change whether it helped, and of a mark what is wrong.",
    ],
    signs: [
      ["Empty leaf", "formed before the change: it says nothing of it"],
      ["Half filled", "begun before, opened after: weak"],
      ["Filled", "formed after"],
      ["Too early, a hint, weak, fair, firm", "how sure an answer is; one plant is a hint at most"],
    ],
    care: "Unpotting and cutting stand last among the checks: they cost the plant most.",
  },
  {
    key: "shelf",
    title: "Shelf",
    to: "/shelf",
    answers: "What you feed with, what is left of it, and what you measure and weigh with.",
    order: [
      "Add each feed by its label, or mark a shipped one as yours.",
      "Add your cans and weigh your spoons once.",
      "Set units, scale step and seasons under Settings.",
      "On the House page: backups, the phone, people and loggers.",
    ],
    signs: [
      ["By its formula", "worked out from the salt itself, not from a label"],
      ["Not balanced", "the typed ions do not add up: check the label"],
    ],
    care: "Label every stock with contents, strength and date.",
  },
  {
    key: "sums",
    title: "Quick sums",
    to: "/sums",
    answers: "One sum without any record: a water, a feed for a can, a blend, a flush.",
    order: [
      "Type what you know. What you leave open makes the answer a range.",
      "Read the sentence below the figure, and its working behind the dots.",
      "Save a reading of a water if it is worth keeping.",
    ],
    signs: [["Range", "a scale or a water that is not known; a reading narrows it"]],
  },
]

/** The station whose help a page asks for. */
export const helpFor = (path: string) =>
  HELP.find((h) => h.to !== "/" && path.startsWith(h.to))?.key ??
  (/^\/(kinds|plans|candidates)/.test(path)
    ? "pots"
    : /^\/(look|photos|compare|answer|changes|trials|seasons|season-report|wrong|rate)/.test(path)
      ? "leaf"
      : path.startsWith("/house")
        ? "shelf"
        : "round")
