import { Box } from "@chakra-ui/react"
import { use } from "react"
import { useSettings, type WorkingSource } from "../api/queries"
import { type QuantityKind, shown, withUnit } from "./format"
import { WorkingContext } from "./workingContext"

type Props = {
  value: number | null | undefined
  kind?: QuantityKind
  unit?: string
  low?: number | null
  high?: number | null
  working?: WorkingSource
  label: string
  bare?: boolean
  none?: string
}

/** A thumb reaches it while the line stays as high as its words. */
const REACH = {
  mdDown: {
    display: "inline-block",
    paddingBlock: "12px",
    my: "-12px",
    minW: "10",
    px: "8px",
    mx: "-8px",
  },
}

/** A number with its unit; a computed one is underlined with dots and opens its working. */
export function Quantity({
  value,
  kind = "plain",
  unit,
  low,
  high,
  working,
  label,
  bare,
  none = "not measured",
}: Props) {
  const display = useSettings()?.display
  const open = use(WorkingContext)
  if (value === null || value === undefined)
    return (
      <Box as="span" color="fg.muted">
        {none}
      </Box>
    )
  const written = (v: number) =>
    kind === "plain" && unit ? withUnit(v, unit) : shown(v, kind, display)
  const main = written(value)
  const named = kind === "plain" ? main.unit : (unit ?? main.unit)
  const range = low != null && high != null ? `${written(low).text} to ${written(high).text}` : null
  const words = (
    <>
      {main.text}
      {!bare && (
        <Box as="span" fontWeight="normal" fontSize="0.85em" color="fg.muted">
          {" "}
          {named}
        </Box>
      )}
      {range && (
        <Box as="span" fontWeight="normal" fontSize="0.85em" color="fg.muted">
          {" "}
          ({range})
        </Box>
      )}
    </>
  )
  if (!working)
    return (
      <Box as="span" whiteSpace="nowrap">
        {words}
      </Box>
    )
  return (
    <Box
      asChild
      whiteSpace="nowrap"
      textDecoration="underline dotted"
      textUnderlineOffset="0.22em"
      cursor="help"
      _hover={{ bg: "bg.subtle" }}
      css={REACH}
      borderRadius="sm"
      fontWeight="inherit"
    >
      <button
        type="button"
        data-working
        aria-label={`${label}: ${main.text} ${named}${range ? `, ${range}` : ""}. Show working`}
        onClick={() => open(working, label)}
      >
        {words}
      </button>
    </Box>
  )
}
