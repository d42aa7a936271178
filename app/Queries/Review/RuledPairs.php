<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Models\Decision;
use App\Models\Tally;
use App\Rulings\FindingSet\Filter;

/** What was ruled on pairs of rows that are alike and should not be: one act that stands for both of their findings. */
final readonly class RuledPairs
{
    public function __construct(private FindingLines $lines, private Masks $masks) {}

    /**
     * @param  list<array{source: array{sequence: int, ...}, target: array{sequence: int, ...}, ...}>  $pairs
     * @return list<array<string, mixed>> the same, each with the decision that was made of both rows together
     */
    public function with(Tally $tally, array $pairs): array
    {
        $sequences = [];
        foreach ($pairs as $pair) {
            array_push($sequences, $pair['source']['sequence'], $pair['target']['sequence']);
        }
        $standings = [];
        if ($sequences !== []) {
            $filter = Filter::selection(false, array_values(array_unique($sequences)));
            foreach ($this->lines->read($this->lines->of($tally, $filter), $tally, $filter, $this->masks->none()) as $line) {
                if ($line instanceof RulableRow) {
                    $standings[$line->finding->sequence] = $line->standing;
                }
            }
        }

        return array_map(static function (array $pair) use ($standings): array {
            $one = $standings[$pair['source']['sequence']] ?? null;
            $other = $standings[$pair['target']['sequence']] ?? null;
            $isRuled = $one?->rulingId !== null && $one->rulingId === $other?->rulingId && $one->decision !== Decision::Open;

            return [...$pair, 'ruled' => $isRuled ? $one->decision->value : null];
        }, $pairs);
    }
}
