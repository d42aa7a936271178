<?php

declare(strict_types=1);

namespace App\Queries\Sources;

use App\Adapters\Sources\Sources;
use App\Models\Dataset;
use App\Models\WantedSources;

/**
 * Where the rows of a dataset are drawn from, as its plan says it to others: by the labels of connections, and with no access.
 *
 * @phpstan-import-type Wanted from WantedSources
 */
final readonly class SourcesOfPlan
{
    public function __construct(private Sources $sources, private DrawnQueries $queries) {}

    /** @return array{source?: list<Wanted>, target?: list<Wanted>} by side; of one that came as files nothing */
    public function of(Dataset $dataset): array
    {
        $drawn = [];
        foreach ($this->queries->of($dataset) as $side => $parts) {
            foreach ($parts as ['query' => $query, 'label' => $label]) {
                $drawn[$side][] = [
                    'connection' => $query['source'],
                    'kind' => $this->sources->kindOf($dataset->migration, $query['source'])->value ?? '',
                    'query' => $query['sql'],
                    ...isset($query['values']) ? ['values' => $query['values']] : [],
                    'part' => $label,
                ];
            }
        }

        return $drawn;
    }
}
