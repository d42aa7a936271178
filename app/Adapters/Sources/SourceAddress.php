<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/**
 * Where a database stands, and how it is entered.
 *
 * @phpstan-type Settings array{host?: string, port?: int, database?: string, user?: string, file?: string,
 *     encryption?: 'preferred'|'required'|'verified', authority?: string, seconds?: int, rows?: int|null, url?: string, header?: string,
 *     prefix?: string, paging?: 'none'|'link'|'next'|'page'|'offset'|'cursor', parameter?: string, field?: string, records?: string,
 *     size?: int, first?: int}
 */
final readonly class SourceAddress
{
    private const SECONDS = 1_800;

    /**
     * @param  string  $encryption  preferred: where it is offered; required; verified: held against the authority too
     * @param  string|null  $authority  certificates that it is held against (PEM)
     * @param  int  $seconds  that a query may take
     * @param  int|null  $rows  that it may give
     */
    private function __construct(
        public SourceKind $kind,
        public string $host,
        public int $port,
        public string $database,
        public string $user,
        #[\SensitiveParameter]
        public string $password,
        public string $encryption = 'preferred',
        public ?string $authority = null,
        public int $seconds = self::SECONDS,
        public ?int $rows = null,
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
            $settings['encryption'] ?? 'preferred',
            $settings['authority'] ?? null,
            $settings['seconds'] ?? self::SECONDS,
            $settings['rows'] ?? null,
        );
    }
}
