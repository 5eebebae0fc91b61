import { Box, Button, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useSearchParams } from "react-router"
import type { Schemas } from "../../../api/client"
import { answer, client, keyed } from "../../../api/client"
import { acidsQuery } from "../../../api/waterQueries"
import { Loaded } from "../../../ui/Page"
import { usePress } from "../../../ui/usePress"
import { Acid } from "./Acid"
import { Safety } from "./Safety"

/** Blending first; acid only after the safety lines were read once. */
export function AlkalinityTool({ page, chosen }: { page: Schemas["WaterPage"]; chosen: number }) {
  const [, setParams] = useSearchParams()
  const query = useQuery(acidsQuery)
  return (
    <>
      <Text mb="2">
        <b>Blend first.</b> Rain or permeate lowers alkalinity safely, and salt with it.{" "}
        <Button
          size="sm"
          variant="outline"
          onClick={() =>
            setParams(
              { tool: "blend", aim: "alkalinity" },
              { replace: true, preventScrollReset: true },
            )
          }
        >
          Blend to an alkalinity
        </Button>
      </Text>
      <Loaded query={query}>
        {(acids) =>
          acids.read_on === null ? (
            <Locked acids={acids} />
          ) : (
            <Acid page={page} chosen={chosen} acids={acids} />
          )
        }
      </Loaded>
    </>
  )
}

function Locked({ acids }: { acids: Schemas["AcidsPage"] }) {
  const confirm = usePress<undefined, Schemas["Stored"]>((_, key) =>
    answer(client.POST("/api/water/acids/read", { params: keyed(key) })),
  )
  return (
    <Box borderWidth="1px" borderColor="border.strong" borderRadius="md" p="3">
      <Text fontWeight="semibold">Acids are locked until you have read this once.</Text>
      <Safety lines={acids.safety} />
      <Button loading={confirm.isPending} onClick={() => confirm.mutate(undefined)}>
        I have read this
      </Button>
      {confirm.isError && (
        <Text role="alert" color="state.stop">
          {confirm.error.message}
        </Text>
      )}
    </Box>
  )
}
