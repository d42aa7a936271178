<?php

declare(strict_types=1);

namespace App\Queries\Sources;

use App\Adapters\Sources\Sources;
use App\Models\Dataset;
use NineTally\Core\Row\Side;

/**
 * What the newest delivery of each side was asked of databases, in the order of its parts: so it can be asked again. Nothing of a side that
 * has a part from elsewhere: it could not be drawn whole.
 *
 * @phpstan-type Drawn array{query: array{source: string, sql: string, values?: array<string, string>}, label: string}
 */
final readonly class DrawnQueries
{
    public function __construct(private Sources $sources) {}

    /** @return array<'source'|'target', non-empty-list<Drawn>> by side */
    public function of(Dataset $dataset): array
    {
        $known = $this->sources->names($dataset->migration);
        $queries = [];
        foreach (Side::cases() as $side) {
            $asked = [];
            foreach ($dataset->latestDelivery($side)?->parts()->get() ?? [] as $part) {
                if ($part->query === null || ! in_array($part->query['source'], $known, true)) {
                    continue 2;
                }
                // Pages of a feed are asked for once.
                // When it was asked, and how much of it, is not a part of the question.
                $query = $part->query;
                unset($query['at'], $query['inPlace'], $query['isNothingNew']);
                $asked[serialize($query)] ??= ['query' => $query, 'label' => $part->part_label];
            }
            if ($asked !== []) {
                $queries[$side->value] = array_values($asked);
            }
        }

        return $queries;
    }
}
