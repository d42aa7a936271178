<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/**
 * Keeps what is asked of the web from the inner network (OWASP, Server-Side Request Forgery): none of the addresses that a name leads to
 * may be inner, unless whoever installs has named it, and the request goes to the address that was looked at, not to what the name says a
 * moment later.
 */
final readonly class OuterGate
{
    /** @param list<string> $inner name:port or address:port of the inner network that may be asked */
    public function __construct(private array $inner) {}

    /**
     * @return array{host: string, port: int, address: string, curl: array<int, list<string>|int>} where a request for it goes, and what
     *     holds it to the address that was looked at
     *
     * @throws SourceProblem when it may not be asked, or there is no such computer
     */
    public function to(string $url): array
    {
        $parts = parse_url($url);
        $scheme = strtolower($parts['scheme'] ?? '');
        $host = trim($parts['host'] ?? '', '[]');
        if (! in_array($scheme, ['http', 'https'], true) || $host === '' || isset($parts['user'])) {
            throw new SourceProblem('This is no address of the web. It begins with https:// or http://, and has no password in it.');
        }
        $port = $parts['port'] ?? ($scheme === 'https' ? 443 : 80);
        $addresses = $this->addresses($host);
        if ($addresses === []) {
            throw new SourceProblem("There is no computer called {$host}, or its name cannot be found from here. Check the name.");
        }
        foreach ($addresses as $address) {
            $isOuter =
                filter_var(
                    $address,
                    FILTER_VALIDATE_IP,
                    FILTER_FLAG_NO_PRIV_RANGE | FILTER_FLAG_NO_RES_RANGE | FILTER_FLAG_GLOBAL_RANGE,
                ) !== false;
            if (! $isOuter && ! in_array("{$host}:{$port}", $this->inner, true) && ! in_array("{$address}:{$port}", $this->inner, true)) {
                throw new SourceProblem(
                    "{$host}, port {$port}, is a computer of the inner network, which feeds are not drawn from. Whoever runs Nine Tally ".
                        'can name it (NINE_TALLY_INNER_HOSTS).',
                );
            }
        }

        return [
            'host' => $host,
            'port' => $port,
            'address' => $addresses[0],
            'curl' => [
                CURLOPT_RESOLVE => ["{$host}:{$port}:{$addresses[0]}"],
                CURLOPT_PROTOCOLS => CURLPROTO_HTTP | CURLPROTO_HTTPS,
            ],
        ];
    }

    /** @return list<string> */
    private function addresses(string $host): array
    {
        if (filter_var($host, FILTER_VALIDATE_IP) !== false) {
            return [$host];
        }
        $found = gethostbynamel($host) ?: [];
        foreach (@dns_get_record($host, DNS_AAAA) ?: [] as $record) {
            if (is_string($record['ipv6'] ?? null)) {
                $found[] = $record['ipv6'];
            }
        }

        return $found;
    }
}
