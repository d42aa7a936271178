<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/**
 * Where a database stands, and how it is entered.
 *
 * @phpstan-type Settings array{host?: string, port?: int, database?: string, user?: string, file?: string,
 *     encryption?: 'preferred'|'required'|'verified', authority?: string, seconds?: int, rows?: int|null, url?: string, header?: string,
 *     prefix?: string, paging?: 'none'|'link'|'next'|'page'|'offset'|'cursor', parameter?: string, field?: string, records?: string,
 *     size?: int, first?: int, folder?: string, marker?: string, rest?: int,
 *     hostKey?: string, driver?: string, bucket?: string, region?: string}
 */
final readonly class SourceAddress
{
    private function __construct(
        public SourceKind $kind,
        public string $host,
        public int $port,
        public string $database,
        public string $user,
        #[\SensitiveParameter]
        public string $password,
        public Encryption $encryption,
        public QueryLimits $limits,
        public string $driver,
    ) {}

    /** @param Settings $settings */
    public static function of(SourceKind $kind, array $settings, #[\SensitiveParameter] string $password): self
    {
        return new self(
            $kind,
            $settings['host'] ?? '',
            $settings['port'] ?? $kind->port(),
            $kind === SourceKind::Sqlite ? $settings['file'] ?? '' : $settings['database'] ?? '',
            $settings['user'] ?? '',
            $password,
            new Encryption($settings['encryption'] ?? 'preferred', $settings['authority'] ?? null),
            QueryLimits::of($settings),
            $settings['driver'] ?? '',
        );
    }
}
