import { Box, Button, Code, Flex, Image, Text } from "@chakra-ui/react"
import { answer, client, keyed, type Schemas } from "../../api/client"
import { Card } from "../../ui/Page"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/usePress"
import { Passphrase } from "./Passphrase"

/** The address for the phone, what to mind about the link, and the way out. */
export function Phone({ lan }: { lan: Schemas["LanOut"] }) {
  const notice = useNotice()
  const everywhere = usePress(
    (_: null, key) => answer(client.POST("/api/lan/sign-out-everywhere", { params: keyed(key) })),
    () => notice({ text: "Every device is signed out." }),
  )
  const here = usePress(
    (_: null, key) => answer(client.POST("/api/lan/sign-out", { params: keyed(key) })),
    () => window.location.assign("/sign-in"),
  )
  return (
    <Card title="The phone at the bench">
      {lan.open && lan.addresses.length > 0 && (
        <Flex gap="4" wrap="wrap" align="center" mb="3">
          <Image
            src="/api/lan/qr.svg"
            alt={`QR code of ${lan.addresses[0]}`}
            boxSize="168px"
            bg="white"
            borderRadius="md"
          />
          <Box>
            <Text>Open on the phone, on the same network:</Text>
            {lan.addresses.map((a) => (
              <Text key={a} fontSize="lg" fontWeight="semibold">
                {a}
              </Text>
            ))}
            <Text color="fg.muted">It is asked for the passphrase once a month.</Text>
          </Box>
        </Flex>
      )}
      <Text color={lan.open && !lan.encrypted ? "state.caution" : undefined}>{lan.sentence}</Text>
      {lan.open && !lan.encrypted && (
        <Text fontSize="sm" color="fg.muted">
          <Code>./fenwa certificate</Code> makes a certificate and says how a phone trusts it.
        </Text>
      )}
      {lan.authority && (
        <Text>
          <a
            href="/api/lan/authority.crt"
            download="fenwa-authority.crt"
            style={{ textDecoration: "underline" }}
          >
            Download the authority
          </a>{" "}
          and install it on the phone as a trusted CA certificate, once.
        </Text>
      )}
      <Text mt="2" color="fg.muted">
        {window.isSecureContext
          ? "This browser keeps the bench: it opens with Fenwa out of reach, and can be added to the home screen."
          : "Over a link that is not encrypted no browser keeps the bench: entries wait, but the page must stay open."}
      </Text>
      <Text mt="2">
        {lan.passphrase_set
          ? "A passphrase is chosen."
          : "No passphrase is chosen yet: the network is not answered."}
      </Text>
      {lan.here ? (
        <Passphrase chosen={lan.passphrase_set} />
      ) : (
        <Text color="fg.muted">It is changed on the machine Fenwa runs on.</Text>
      )}
      {lan.open && (
        <Flex gap="3" mt="3" wrap="wrap">
          {!lan.here && (
            <Button
              variant="outline"
              minH="44px"
              loading={here.isPending}
              onClick={() => here.mutate(null)}
            >
              Sign this device out
            </Button>
          )}
          <Button
            variant="outline"
            minH="44px"
            loading={everywhere.isPending}
            onClick={() => everywhere.mutate(null)}
          >
            Sign out everywhere
          </Button>
        </Flex>
      )}
    </Card>
  )
}
