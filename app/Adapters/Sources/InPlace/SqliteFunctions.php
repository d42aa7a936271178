<?php

declare(strict_types=1);

namespace App\Adapters\Sources\InPlace;

use Brick\Math\BigInteger;

/** What SQLite is asked with by {@see Dialect}, for it has no hashes of its own. */
final readonly class SqliteFunctions
{
    private const HALF = 30;

    /** @param \Closure(mixed): (string|null) $text of a value, as it is drawn */
    public static function lend(\PDO $database, \Closure $text): void
    {
        $flags = \PDO::SQLITE_DETERMINISTIC;
        $database->sqliteCreateFunction('tally_text', static fn(mixed ...$cells): string => implode('', array_map(
            static fn(mixed $cell): string => ($written = $text($cell)) === null ? 'n' : strlen($written).":{$written}",
            $cells,
        )), -1, $flags);
        $database->sqliteCreateFunction(
            'tally_number',
            // As text, for numbers are cut to 32 bits on this way.
            static fn(string $text, int $from, int $digits): string => (string) hexdec(substr(md5($text), $from, $digits)),
            3,
            $flags,
        );
        $database->sqliteCreateFunction(
            'tally_odd',
            static fn(mixed $cell): int => preg_match('/[A-Za-z0-9]/', $text($cell) ?? '') === 1 ? 0 : 1,
            1,
            $flags,
        );
        // Sums are larger than a number of the database, so each is kept in two halves.
        $database->sqliteCreateAggregate('tally_sum', self::add(...), self::sum(...), 1);
    }

    /**
     * @param  array{int, int}|null  $sum
     * @return array{int, int}
     */
    private static function add(?array $sum, int $row, string $value): array
    {
        return [($sum[0] ?? 0) + ((int) $value >> self::HALF), ($sum[1] ?? 0) + ((int) $value & ((1 << self::HALF) - 1))];
    }

    /** @param array{int, int}|null $sum */
    private static function sum(?array $sum, int $rows): string
    {
        return (string) BigInteger::of($sum[0] ?? 0)->shiftedLeft(self::HALF)->plus($sum[1] ?? 0);
    }
}
