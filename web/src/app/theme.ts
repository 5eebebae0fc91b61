// Tokens by meaning, both colour modes; the only file but ramp.ts with colours in it.
import { createSystem, defineConfig } from "@chakra-ui/react/styled-system"
import { defaultBaseConfig } from "@chakra-ui/react/preset-base"
import {
  breakpoints,
  buttonRecipe,
  drawerSlotRecipe,
  fieldSlotRecipe,
  globalCss,
  headingRecipe,
  inputRecipe,
  keyframes,
  layerStyles,
  nativeSelectSlotRecipe,
  semanticTokens,
  textareaRecipe,
  textStyles,
  tokens,
} from "@chakra-ui/react/theme"

const both = (light: string, dark: string) => ({ value: { _light: light, _dark: dark } })

const ours = defineConfig({
  theme: {
    tokens: {
      fonts: {
        body: { value: "'Hanken Grotesk Variable', sans-serif" },
        heading: { value: "'Hanken Grotesk Variable', sans-serif" },
      },
    },
    recipes: { button: { base: { minH: { base: "10", md: "auto" } } } },
    semanticTokens: {
      colors: {
        bg: {
          DEFAULT: both("#f2f5f4", "#10181b"),
          panel: both("#ffffff", "#182327"),
          subtle: both("#e9efed", "#203036"),
          inset: both("#eef3f1", "#141e22"),
        },
        fg: {
          DEFAULT: both("#15252b", "#eef4f3"),
          muted: both("#4b5f64", "#b3c3c4"),
          inverted: both("#ffffff", "#10181b"),
        },
        border: { DEFAULT: both("#d5dfdc", "#34474d"), strong: both("#7f9295", "#7c9196") },
        ink: {
          solid: both("#15252b", "#e3eeec"),
          contrast: both("#ffffff", "#10181b"),
          fg: both("#15252b", "#eef4f3"),
          muted: both("#dfe8e5", "#2a3b41"),
          subtle: both("#e9efed", "#203036"),
          emphasized: both("#c9d6d3", "#3a4d54"),
          focusRing: both("#15252b", "#e3eeec"),
          border: both("#aebdbb", "#52676d"),
        },
        leaf: both("#5f9d80", "#7fbf9f"),
        leafEdge: both("#2c5f48", "#bfe3d0"),
        leafBrown: both("#7a4f2c", "#b98558"),
        leafYellow: both("#d6c454", "#e3d57a"),
        onPhoto: both("#ffffff", "#ffffff"),
        comfort: both("#dcefe5", "#1f3a30"),
        state: {
          good: both("#1d6244", "#8fd6b3"),
          caution: both("#8a4b08", "#f3c27c"),
          stop: both("#a11d1d", "#ffa8a0"),
        },
        phase: {
          active: both("#cfe5da", "#234838"),
          rest: both("#e4e9e8", "#2b393e"),
          flowering: both("#ead6e8", "#4b2f49"),
          other: both("#e8e4d4", "#423d28"),
        },
      },
    },
  },
  globalCss: {
    html: {
      colorPalette: "ink",
      fontVariantNumeric: "tabular-nums",
      fontFeatureSettings: "'tnum', 'zero' 0",
    },
    "header, nav, [data-screen-only]": { _print: { display: "none !important" } },
    body: {
      bg: "bg",
      color: "fg",
      fontSize: "15px",
      lineHeight: "1.45",
      _print: { bg: "white", color: "black" },
    },
    "input[type=checkbox], input[type=range]": { accentColor: "ink.solid" },
    // a thumb reaches what stands in a line: the padding of a word is taken back all round, so that no line moves
    "main a:not([class])": { mdDown: { paddingBlock: "11px", my: "-11px", px: "8px", mx: "-8px" } },
    summary: { mdDown: { minH: "10" } },
    "*:focus-visible": {
      outline: "3px solid",
      outlineColor: "ink.focusRing",
      outlineOffset: "2px",
    },
    // where the reader's system chooses the colours: drawings take them too, and what is chosen is not told by a
    // background that is taken away
    "html:root": {
      "@media (forced-colors: active)": {
        "--chakra-colors-fg": "CanvasText !important",
        "--chakra-colors-fg-muted": "CanvasText !important",
        "--chakra-colors-border": "CanvasText !important",
        "--chakra-colors-border-strong": "CanvasText !important",
        "--chakra-colors-bg-panel": "Canvas !important",
      },
    },
    "[aria-pressed=true], [aria-selected=true], [aria-checked=true]": {
      "@media (forced-colors: active)": {
        forcedColorAdjust: "none",
        background: "Highlight !important",
        color: "HighlightText !important",
      },
    },
    "*, *::before, *::after": {
      _motionReduce: {
        animationDuration: "0.01ms !important",
        transitionDuration: "0.01ms !important",
      },
    },
  },
})

// Of Chakra's tokens what its parts here refer to: all that is known is laid out anew whenever Fenwa is opened, which
// with its ten palettes took a phone half a second
const { transparent, current, black, white, blackAlpha, gray, red } = tokens.colors
const known = <T extends object>(colours: T) =>
  Object.fromEntries(
    Object.entries(colours).filter(([name]) => !["warning", "success", "info"].includes(name)),
  )
const { bg, fg, border } = semanticTokens.colors

export const system = createSystem(
  defaultBaseConfig,
  {
    preflight: true,
    globalCss,
    theme: {
      breakpoints,
      keyframes,
      tokens: {
        ...tokens,
        colors: { transparent, current, black, white, blackAlpha, gray, red },
        animations: {},
        aspectRatios: {},
        blurs: {},
      },
      semanticTokens: {
        ...semanticTokens,
        colors: { bg: known(bg), fg: known(fg), border: known(border) },
      },
      textStyles,
      layerStyles,
      recipes: {
        button: buttonRecipe,
        heading: headingRecipe,
        input: inputRecipe,
        textarea: textareaRecipe,
      },
      slotRecipes: {
        field: fieldSlotRecipe,
        nativeSelect: nativeSelectSlotRecipe,
        drawer: drawerSlotRecipe,
      },
    },
  },
  ours,
)
