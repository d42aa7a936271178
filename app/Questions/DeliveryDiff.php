<?php

declare(strict_types=1);

namespace App\Questions;

use NineTally\Core\Profile\ValueDistribution;

/**
 * What changed in the columns of a side from one delivery to the next, in words: which there are, of what kind, and where they are blank.
 *
 * @phpstan-import-type Column from ValueDistribution
 */
final readonly class DeliveryDiff
{
    /**
     * @param  array<string, Column>  $before  by name
     * @param  array<string, Column>  $now
     * @return list<string>
     */
    public function words(array $before, array $now): array
    {
        $changes = [];
        foreach (array_keys(array_diff_key($now, $before)) as $name) {
            $changes[] = "column {$name} is new";
        }
        foreach (array_keys(array_diff_key($before, $now)) as $name) {
            $changes[] = "column {$name} is gone";
        }
        foreach (array_intersect_key($now, $before) as $name => $column) {
            $changes = [...$changes, ...$this->ofColumn((string) $name, $before[$name], $column)];
        }

        return $changes;
    }

    /**
     * @param  Column  $before
     * @param  Column  $now
     * @return list<string>
     */
    private function ofColumn(string $name, array $before, array $now): array
    {
        return array_values(
            array_filter([
                $before['kind'] === $now['kind'] ? '' : "{$name} looks like {$now['kind']}, no longer like {$before['kind']}",
                $before['blank'] === 0 && $now['blank'] > 0
                    ? sprintf('%s is blank in %s rows, and never was before', $name, number_format($now['blank']))
                    : '',
                $before['blank'] > 0 && $now['blank'] === 0 ? "{$name} is no longer blank anywhere" : '',
                $before['blank'] > 0 && $now['blank'] > 0 && $this->isFarApart($before, $now)
                    ? sprintf('%s is blank in %s rows, and was in %s', $name, number_format($now['blank']), number_format($before['blank']))
                    : '',
            ]),
        );
    }

    /**
     * Whether the share of blank rows has doubled or halved, and by more than one in a hundred.
     *
     * @param  Column  $before
     * @param  Column  $now
     */
    private function isFarApart(array $before, array $now): bool
    {
        [$was, $is] = [$before['blank'] / max(1, $before['values']), $now['blank'] / max(1, $now['values'])];

        return abs($was - $is) > 0.01 && max($was, $is) >= 2 * min($was, $is);
    }
}
