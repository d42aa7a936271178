<?php

declare(strict_types=1);

namespace App\Actions\Match;

use App\Models\Dataset;
use App\Queries\Review\SideMask;
use App\Questions\Answers;
use App\Questions\BothSides;
use App\Questions\ColumnMatching;
use App\Questions\Question;
use App\Questions\WhatStandsAsRows;
use NineTally\Core\Row\Sides;

/**
 * What is advised for the plan of a dataset: which columns pair, which of them tell rows apart, how their values are written, and what
 * keeps rows from meeting; from samples at once, on all rows as soon as a worker has looked.
 */
final readonly class Advise
{
    public function __construct(private Answers $answers, private AdviseKeys $keys, private AdviseForms $forms) {}

    /**
     * @param  Sides<SideMask>  $masks
     * @return array<string, mixed>
     */
    public function __invoke(Dataset $dataset, Sides $masks): array
    {
        $sides = BothSides::of($dataset);
        if ($sides === null) {
            return [
                'pairs' => ['isWaiting' => false, 'done' => 0, 'total' => 0, 'problem' => null, 'proposals' => []],
                'keys' => AdviseKeys::none(),
                'forms' => ['isWaiting' => false, 'problem' => null, 'forms' => [], 'tokens' => []],
                'meeting' => null,
                'fold' => null,
                'draft' => 0,
            ];
        }
        $pairs = $this->answers->to(new ColumnMatching($sides));
        $keys = ($this->keys)($dataset, $sides, $pairs);

        return [
            'pairs' => [...$pairs->progress(), 'proposals' => $pairs->content['proposals'] ?? []],
            'keys' => $keys,
            'forms' => $this->forms->forms($dataset, $sides, $pairs, $masks),
            'meeting' => $this->forms->meeting($dataset, $sides, $masks),
            'fold' => $this->answers->to(new WhatStandsAsRows($sides))->content['fold'] ?? null,
            'draft' => $dataset->draftNow()->number ?? 0,
        ];
    }

    public function cancel(Dataset $dataset): void
    {
        foreach ($this->questions($dataset) as $question) {
            $this->answers->cancel($question);
        }
    }

    public function again(Dataset $dataset): void
    {
        foreach ($this->questions($dataset) as $question) {
            $this->answers->again($question);
        }
    }

    /** @return list<Question> those that take long and have been asked so far */
    private function questions(Dataset $dataset): array
    {
        $sides = BothSides::of($dataset);
        if ($sides === null) {
            return [];
        }
        $matching = new ColumnMatching($sides);
        $ladder = $this->forms->ladder($dataset, $sides);

        return [
            $matching,
            ...$this->keys->questions($dataset, $sides, $this->answers->to($matching)),
            ...$ladder === null ? [] : [$ladder],
        ];
    }
}
