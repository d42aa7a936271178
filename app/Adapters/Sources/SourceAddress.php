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
    public string $host;

    public int $port;

    public string $database;

    public string $user;

    /** Of ODBC, as the machine calls it. */
    public string $driver;

    public Encryption $encryption;

    public QueryLimits $limits;

    /** @param Settings $settings */
    private function __construct(public SourceKind $kind, array $settings, #[\SensitiveParameter] public string $password)
    {
        $this->host = $settings['host'] ?? '';
        $this->port = $settings['port'] ?? $kind->port();
        $this->database = $kind === SourceKind::Sqlite ? $settings['file'] ?? '' : $settings['database'] ?? '';
        $this->user = $settings['user'] ?? '';
        $this->driver = $settings['driver'] ?? '';
        $this->encryption = new Encryption($settings['encryption'] ?? 'preferred', $settings['authority'] ?? null);
        $this->limits = QueryLimits::of($settings);
    }

    /** @param Settings $settings */
    public static function of(SourceKind $kind, array $settings, #[\SensitiveParameter] string $password): self
    {
        return new self($kind, $settings, $password);
    }
}
