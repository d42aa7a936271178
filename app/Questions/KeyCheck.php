<?php

declare(strict_types=1);

namespace App\Questions;

use NineTally\Core\Advice\BareCells;
use NineTally\Core\Matching\RowSets\RowMultiset;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;

/**
 * How advised keys hold on all rows: how many rows repeat on each side, how many meet one of the other, and how many would whatever form
 * their values are written in.
 */
final readonly class KeyCheck implements Question
{
    private const ROWS_BETWEEN_REPORTS = 5_000;

    /** @param non-empty-list<non-empty-list<array{source: string, target: string}>> $keys */
    public function __construct(private BothSides $sides, private array $keys) {}

    public function kind(): string
    {
        return 'how-keys-meet';
    }

    public function about(): array
    {
        return [$this->sides->about(), $this->keys];
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        return $material->withFolder(function (string $folder) use ($material, $onProgress): array {
            $readers = [
                'source' => $this->sides->reader($material, Side::Source),
                'target' => $this->sides->reader($material, Side::Target),
            ];
            $total = $readers['source']->bytes() + $readers['target']->bytes();
            $multisets = $likely = ['source' => [], 'target' => []];
            $rows = ['source' => 0, 'target' => 0];
            $before = 0;
            foreach ($readers as $side => $reader) {
                $places = array_map(
                    static fn(array $key): array => $reader->columns()->positionsOf(array_column($key, $side)),
                    $this->keys,
                );
                $multisets[$side] = array_map(static fn(): RowMultiset => new RowMultiset($folder), $this->keys);
                $likely[$side] = array_map(static fn(): RowMultiset => new RowMultiset($folder), $this->keys);
                $used = array_unique(array_merge(...$places));
                $bare = new BareCells;
                $bytes = 0;
                foreach ($reader->records(static function (int $read) use (&$bytes): void {
                    $bytes = $read;
                }) as $record) {
                    if (! $record instanceof Row) {
                        continue;
                    }
                    $bareCells = $bare->of($record->cells, $used);
                    foreach ($places as $nth => $ofKey) {
                        $key = array_map(static fn(int $place): string => $record->cells[$place], $ofKey);
                        if (implode('', $key) !== '') {
                            $multisets[$side][$nth]->add($key);
                            $likely[$side][$nth]->add(array_map(static fn(int $place): string => $bareCells[$place], $ofKey));
                        }
                    }
                    ++$rows[$side] % self::ROWS_BETWEEN_REPORTS === 0 && $onProgress($before + $bytes, $total);
                }
                $before += $reader->bytes();
            }

            return ['rows' => $rows, 'keys' => array_map(static function (int $nth) use ($multisets, $likely, $rows): array {
                [$source, $target] = [$multisets['source'][$nth], $multisets['target'][$nth]];
                $meeting = $source->meeting($target);
                $couldMeet = $likely['source'][$nth]->meeting($likely['target'][$nth]);

                return [
                    'repeats' => $meeting->sharing,
                    'unkeyed' => ['source' => $rows['source'] - $source->rows(), 'target' => $rows['target'] - $target->rows()],
                    'meets' => $meeting->met,
                    'oneToOne' => $meeting->oneToOne,
                    'couldMeet' => max($meeting->oneToOne, $couldMeet->oneToOne),
                ];
            }, array_keys($this->keys))];
        });
    }
}
