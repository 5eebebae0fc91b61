// Signs beside words, drawn as lines: the typeface that ships has none, and a machine without another shows a box.
import { Box } from "@chakra-ui/react"

function Sign({ d, filled = false, label }: { d: string; filled?: boolean; label?: string }) {
  const said = label ? { role: "img", "aria-label": label } : { "aria-hidden": true }
  return (
    <Box asChild display="inline-block" boxSize="0.8em !important" verticalAlign="-0.05em" mx="0.5">
      <svg viewBox="0 0 12 12" {...said}>
        <path
          d={d}
          fill={filled ? "currentColor" : "none"}
          stroke="currentColor"
          strokeWidth="1.5"
          strokeLinejoin="round"
        />
      </svg>
    </Box>
  )
}

const DISC = "M6 1.5a4.5 4.5 0 1 0 0 9a4.5 4.5 0 1 0 0-9z"

/** Before a name in a list: full for the first, a ring for the rest. */
export const Disc = ({ full }: { full: boolean }) => <Sign d={DISC} filled={full} />

/** Before what opens: down where it stands open. */
export const Fold = ({ open }: { open: boolean }) => (
  <Sign d={open ? "M1.5 3.5h9l-4.5 6z" : "M3.5 1.5v9l6-4.5z"} filled />
)

/** Done, and by which word a screen reader says so. */
export const Done = ({ word }: { word: string }) => <Sign d="M1.5 6.5l3 3.5l6-8" label={word} />
