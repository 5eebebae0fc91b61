import { Button, Field, Flex, Input } from "@chakra-ui/react"
import { answer, client } from "../../api/client"
import { useNotice } from "../../ui/noticeContext"
import { useEntryForm } from "../../ui/useEntryForm"

/** Choose or change the passphrase; on this machine only. */
export function Passphrase({ chosen }: { chosen: boolean }) {
  const notice = useNotice()
  const entry = useEntryForm(
    { passphrase: "" },
    (v) => answer(client.POST("/api/lan/passphrase", { body: v })),
    (_, __, form) => {
      form.reset()
      notice({ text: "Passphrase saved, as a hash. Every device is asked again." })
    },
  )
  const error = entry.form.formState.errors.passphrase?.message ?? entry.problem
  return (
    <form onSubmit={(e) => void entry.submit(e)} noValidate>
      <Flex gap="3" mt="3" align="flex-start" wrap="wrap">
        <Field.Root invalid={!!error} w="auto" flex="1 1 220px" maxW="360px">
          <Field.Label fontSize="sm">{chosen ? "New passphrase" : "Passphrase"}</Field.Label>
          <Input
            {...entry.form.register("passphrase")}
            type="password"
            autoComplete="new-password"
            bg="bg.panel"
            minH="44px"
          />
          <Field.HelperText>Four or five words nobody would guess.</Field.HelperText>
          {error && (
            <Field.ErrorText color="state.stop" fontSize="sm">
              {error}
            </Field.ErrorText>
          )}
        </Field.Root>
        <Button type="submit" minH="44px" mt="25px" variant="outline" loading={entry.pending}>
          {chosen ? "Change it" : "Choose it"}
        </Button>
      </Flex>
    </form>
  )
}
