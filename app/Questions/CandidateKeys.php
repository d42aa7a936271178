<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Deliveries\DeliverySample;
use NineTally\Core\Advice\AdvisedKey;
use NineTally\Core\Advice\KeyAdvice;
use NineTally\Core\Row\Side;

/** Which of the paired columns tell the rows of both sides apart, on the samples that are kept of them. */
final readonly class CandidateKeys implements QuickQuestion
{
    /** @param non-empty-list<array{source: string, target: string}> $pairs */
    public function __construct(private BothSides $sides, private array $pairs) {}

    public function kind(): string
    {
        return 'what-tells-rows-apart';
    }

    public function about(): array
    {
        return [$this->sides->about(), $this->pairs];
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        $cells = self::cells(new DeliverySample($material->reader, $material->sides, isPatient: true), $this->sides, $this->pairs);
        $names = array_column($this->pairs, 'source');
        $keys = (new KeyAdvice)->keys($names, $cells, static fn(int $level, int $sets) => $onProgress($level, 6));

        return [
            'keys' => array_map(
                fn(AdvisedKey $key): array => [
                    'columns' => array_map(fn(int $place): array => $this->pairs[$place], $key->places),
                    'rows' => $key->rows,
                    'repeats' => $key->repeats,
                    'shorter' => array_map(
                        fn(int $place, array $repeats): array => ['without' => $this->pairs[$place]['source'], 'repeats' => $repeats],
                        array_keys($key->shorter),
                        $key->shorter,
                    ),
                ],
                $keys,
            ),
            'isWhole' => $this->isWhole($material),
        ];
    }

    /**
     * @param  non-empty-list<array{source: string, target: string}>  $pairs
     * @return list<array{source: list<string>, target: list<string>}> pair by pair, the cells of the sample
     */
    public static function cells(DeliverySample $sample, BothSides $sides, array $pairs): array
    {
        $ofSides = ['source' => [], 'target' => []];
        foreach (Side::cases() as $side) {
            ['columns' => $columns, 'rows' => $rows] = $sample->prepared($sides->delivery($side), $sides->rules($side), PHP_INT_MAX);
            foreach ($pairs as $pair) {
                $place = array_search($pair[$side->value], $columns, true);
                $ofSides[$side->value][] = $place === false ? array_fill(0, count($rows), '') : array_column($rows, $place);
            }
        }

        return array_map(
            static fn(array $source, array $target): array => ['source' => $source, 'target' => $target],
            $ofSides['source'],
            $ofSides['target'],
        );
    }

    private function isWhole(QuestionContext $material): bool
    {
        $sample = new DeliverySample($material->reader, $material->sides);

        return $sample->isWhole($this->sides->delivery(Side::Source)) && $sample->isWhole($this->sides->delivery(Side::Target));
    }
}
