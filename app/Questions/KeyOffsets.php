<?php

declare(strict_types=1);

namespace App\Questions;

use App\Models\Tally;
use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Comparison\RowRecord;
use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Matching\KeyOffsetIndex;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Side;

/** Where each row of a tally stands in what was delivered, by its key: rows that agree are kept nowhere else. */
final readonly class KeyOffsets implements Question
{
    /** @param string $plan as JSON */
    private function __construct(private BothSides $sides, private string $plan) {}

    public static function ofTally(Tally $tally): self
    {
        return new self(BothSides::ofTally($tally), $tally->planVersion->document);
    }

    public function kind(): string
    {
        return 'where-keys-stand';
    }

    public function about(): array
    {
        return [$this->sides->about(), ...Plan::fromJson($this->plan)->keyRules()];
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        $folder = $this->folder($material);
        @mkdir($folder, 0700, true);
        $readers = ['source' => $this->sides->reader($material, Side::Source), 'target' => $this->sides->reader($material, Side::Target)];
        $plan = Plan::fromJson($this->plan);
        $total = $readers['source']->bytes() + $readers['target']->bytes();
        $before = 0;
        foreach (Side::cases() as $side) {
            $reader = $readers[$side->value];
            [$positions, $form] = $this->keyOn($plan, $side, $reader->columns());
            $material->withFolder(static function (string $aside) use (
                $reader,
                $positions,
                $form,
                $folder,
                $side,
                $onProgress,
                $before,
                $total,
            ): null {
                KeyOffsetIndex::write(
                    $reader,
                    $positions,
                    $form,
                    "{$folder}/{$side->value}",
                    $aside,
                    static fn(int $byte) => $onProgress($before + $byte, $total),
                );

                return null;
            });
            $before += $reader->bytes();
        }

        return [];
    }

    /**
     * The row of a key on each side, when the question is answered.
     *
     * @param  list<string>  $key
     * @return array{source: RowRecord|null, target: RowRecord|null}|null null if what was found is not kept any more
     */
    public function rows(QuestionContext $material, array $key): ?array
    {
        $folder = $this->folder($material);
        // The mark of use: what nobody uses is cleared up. Where it was, a mark would be a file in the way of the next folder.
        is_dir($folder) && touch($folder);
        $plan = Plan::fromJson($this->plan);
        $rows = [];
        foreach (Side::cases() as $side) {
            $reader = $this->sides->reader($material, $side);
            [$positions, $form] = $this->keyOn($plan, $side, $reader->columns());
            $places = KeyOffsetIndex::at("{$folder}/{$side->value}", $reader, $positions, $form);
            if ($places === null) {
                return null;
            }
            $row = $places->row($key);
            // Lines are those of the delivered file.
            $place = $row === null ? null : $reader->place($row->line);
            $rows[$side->value] = $row === null || $place === null ? null : new RowRecord($place->line, $row->cells, $place->part);
        }

        return ['source' => $rows['source'] ?? null, 'target' => $rows['target'] ?? null];
    }

    /** @return array{non-empty-list<int>, KeyForm} */
    private function keyOn(Plan $plan, Side $side, Columns $columns): array
    {
        return [
            array_map(
                static fn(KeyColumn $column): int => $columns->positionOf($side === Side::Source ? $column->source : $column->target),
                $plan->key,
            ),
            $plan->keyForm($side, (new CauseCatalogue)->forms),
        ];
    }

    private function folder(QuestionContext $material): string
    {
        return "{$material->sides->folder()}/keys-".(new Answers)->digest($this);
    }
}
