<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/** What a query may take and give. */
final readonly class QueryLimits
{
    private const SECONDS = 1_800;

    /** @param int|null $rows null: any number */
    public function __construct(public int $seconds, public ?int $rows) {}

    /** @param array{seconds?: int, rows?: int|null, ...} $settings */
    public static function of(array $settings): self
    {
        return new self($settings['seconds'] ?? self::SECONDS, $settings['rows'] ?? null);
    }

    /** What is said when a query gives more rows. */
    public function tooManyRows(): string
    {
        return sprintf(
            'it gives more than %s rows, which is as many as this connection allows. Ask for fewer, or have the limit raised',
            number_format((int) $this->rows),
        );
    }
}
