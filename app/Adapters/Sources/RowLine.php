<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/** A row of a query as a line of JSON (JSON Lines). */
final readonly class RowLine
{
    /**
     * @param  list<string>  $columns
     * @param  list<string|null>  $cells
     */
    public static function of(array $columns, array $cells): string
    {
        return json_encode(
            array_combine($columns, $cells),
            JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_INVALID_UTF8_SUBSTITUTE | JSON_FORCE_OBJECT,
        )."\n";
    }
}
