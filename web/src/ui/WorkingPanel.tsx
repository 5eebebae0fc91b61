import { Box, Button, Drawer, Heading, Portal, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useOptions, type Working, type WorkingSource } from "../api/queries"
import { figure } from "./format"

/** Inputs, equation with the numbers in it, assumptions, range and source of one number. */
export default function WorkingPanel({
  source,
  label,
  onClose,
}: {
  source: WorkingSource
  label: string
  onClose: () => void
}) {
  const fetched = useQuery({
    queryKey: ["working", source.kind === "fetch" ? source.key : "here"],
    queryFn: () => (source.kind === "fetch" ? source.load() : Promise.resolve(source.working)),
    enabled: source.kind === "fetch",
    staleTime: 0,
  })
  const working = source.kind === "here" ? source.working : fetched.data
  return (
    <Drawer.Root open size="md" onOpenChange={(e) => !e.open && onClose()}>
      <Portal>
        <Drawer.Backdrop />
        <Drawer.Positioner>
          <Drawer.Content bg="bg.panel">
            <Drawer.Header>
              <Drawer.Title>Working: {label}</Drawer.Title>
            </Drawer.Header>
            <Drawer.Body tabIndex={0}>
              {fetched.isError && <Text role="alert">{fetched.error.message}</Text>}
              {working ? <Sheet working={working} /> : !fetched.isError && <Text>One moment.</Text>}
            </Drawer.Body>
            <Drawer.Footer>
              <Button variant="outline" onClick={onClose}>
                Close
              </Button>
            </Drawer.Footer>
          </Drawer.Content>
        </Drawer.Positioner>
      </Portal>
    </Drawer.Root>
  )
}

/** A formula with its symbols replaced by their values. */
function withNumbers(formula: string, values: Map<string, number>): string {
  return formula.replace(/[A-Za-z_]\w*/g, (name) => {
    const value = values.get(name)
    return value === undefined ? name : figure(value, 5)
  })
}

function Sheet({ working }: { working: Working }) {
  const names = useOptions()?.sources ?? {}
  const values = new Map<string, number>()
  for (const t of working.inputs) values.set(t.symbol, t.value)
  const lines = working.steps.map((s) => {
    const line = { ...s, numbers: withNumbers(s.formula, values) }
    values.set(s.symbol, s.value)
    return line
  })
  return (
    <Box fontSize="sm">
      <Part title="Goes in">
        {working.inputs.map((t) => (
          <Box key={t.symbol} mb="1.5">
            <Text>
              <b>{t.symbol}</b> = {figure(t.value, 6)} {t.unit}
            </Text>
            <Text color="fg.muted">
              {t.label} · {t.origin}
            </Text>
          </Box>
        ))}
      </Part>
      <Part title="Step by step">
        {lines.map((s) => (
          <Box key={s.symbol} mb="2.5">
            <Text color="fg.muted">{s.label}</Text>
            {s.formula ? (
              <>
                <Text overflowWrap="anywhere">
                  <b>{s.symbol}</b> = {s.formula}
                </Text>
                <Text overflowWrap="anywhere">= {s.numbers}</Text>
                <Text fontWeight="semibold">
                  = {figure(s.value, 5)} {s.unit}
                </Text>
              </>
            ) : (
              <Text>
                <b>{s.symbol}</b> is found to be <b>{figure(s.value, 5)}</b> {s.unit}
                <br />
                <Text as="span" fontStyle="italic">
                  by {s.by}
                </Text>
              </Text>
            )}
          </Box>
        ))}
      </Part>
      {working.assumptions.length > 0 && (
        <Part title="Taken for granted">
          {working.assumptions.map((a) => (
            <Text key={a} mb="1">
              {a}
            </Text>
          ))}
        </Part>
      )}
      {working.cautions.length > 0 && (
        <Part title="Mind">
          {working.cautions.map((a) => (
            <Text key={a} mb="1">
              {a}
            </Text>
          ))}
        </Part>
      )}
      {working.validity && (
        <Part title="Holds for">
          <Text>{working.validity}</Text>
        </Part>
      )}
      <Part title="Source">
        {working.sources.map((s) => (
          <Text key={s} mb="1">
            {names[s] ?? s}
          </Text>
        ))}
      </Part>
      {working.formula_id && <Text color="fg.muted">Computed in {working.formula_id}</Text>}
    </Box>
  )
}

function Part({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <Box as="section" mb="4">
      <Heading as="h3" size="sm" mb="1.5">
        {title}
      </Heading>
      {children}
    </Box>
  )
}
