<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Deliveries\DeliverySample;
use NineTally\Core\Advice\FoldAdvice;
use NineTally\Core\Row\Side;

/** Columns of one side that stand as rows on the other, seen on the samples that are kept of both. */
final readonly class WhatStandsAsRows implements QuickQuestion
{
    public function __construct(private BothSides $sides) {}

    public function kind(): string
    {
        return 'what-stands-as-rows';
    }

    public function about(): array
    {
        return $this->sides->about();
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        $readings = new ColumnReadings(new DeliverySample($material->reader, $material->sides, isPatient: true), $this->sides);
        $values = ['source' => $readings->columns(Side::Source), 'target' => $readings->columns(Side::Target)];
        foreach (Side::cases() as $side) {
            $fold = (new FoldAdvice)->of($values[$side->value], $values[$side->other()->value]);
            if ($fold !== null) {
                return [
                    'fold' => ['side' => $side->value] + $fold + [
                        'rows' => [
                            'source' => $this->sides->delivery(Side::Source)->delivered_count,
                            'target' => $this->sides->delivery(Side::Target)->delivered_count,
                        ],
                    ],
                ];
            }
        }

        return ['fold' => null];
    }
}
