<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use NineTally\Core\Value\Decimal;

/** The shares of all control totals so far, by group. Those of several tasks of work add up. */
final class ShareCounts
{
    /** Over all rows, whatever their group; no text holds its byte. */
    public const ALL = "\xFD";

    /** Keys of its rows that a share tells. */
    private const KEYS = 20;

    private const KEYS_OF_GROUP = 5;

    /** @var array<int, array<string, array<string, Share>>> by total, by group as groups meet, by name */
    private array $shares = [];

    /** @param string|null $key by which the row is found, where no list of findings has it */
    public function add(int $total, string $group, string $name, Decimal $amount, ?string $key = null): void
    {
        $this->share($total, $group, $name)->add($amount, $key);
    }

    public function merge(self $other): void
    {
        foreach ($other->shares as $total => $groups) {
            foreach ($groups as $group => $shares) {
                foreach ($shares as $name => $share) {
                    $this->share($total, (string) $group, $name)->take($share);
                }
            }
        }
    }

    /** @return array<string, array<string, Share>> by group and name */
    public function of(int $total): array
    {
        return $this->shares[$total] ?? [];
    }

    private function share(int $total, string $group, string $name): Share
    {
        if (! isset($this->shares[$total][$group]) && count($this->shares[$total] ?? []) > SideTotals::MOST_GROUPS) {
            $group = SideTotals::BEYOND;
        }

        return $this->shares[$total][$group][$name] ??= new Share($group === self::ALL ? self::KEYS : self::KEYS_OF_GROUP);
    }
}
