<?php

declare(strict_types=1);

namespace App\Actions\Review;

use App\Actions\Match\SaveDraft;
use App\Models\Dataset;
use App\Models\User;
use App\Problems\Conflict;
use App\Questions\Answers;
use NineTally\Core\Repeats\ChosenRow;
use NineTally\Core\Row\Side;

/**
 * Which row of a group a person keeps becomes part of the draft. The row is named by its place in the look, so that nobody needs to see a
 * masked value, or its digest, to choose.
 *
 * @phpstan-import-type Asked from LookAtRepeats
 * @phpstan-import-type ChosenDocument from ChosenRow
 */
final readonly class ChooseKeptRow
{
    public function __construct(private LookAtRepeats $look, private Answers $answers, private SaveDraft $saveDraft) {}

    /**
     * @param  Asked  $asked  of the look, which must be on the key
     * @param  int  $group  its place in the look
     * @param  int|null  $row  its place in the group; null takes the choice back
     * @param  int  $seen  the number of the draft that the person saw
     * @return int the number of the draft
     *
     * @throws Conflict when the look is not there, or is not on the key
     * @throws \App\Problems\DraftChanged when somebody else has saved another since
     */
    public function __invoke(
        Dataset $dataset,
        array $asked,
        Side $side,
        int $group,
        ?int $row,
        string $reason,
        User $person,
        int $seen,
    ): int {
        $question = $this->look->question($dataset, $asked)[0];
        $draft = $dataset->draft()->firstOrFail();
        if (! $question->isKey) {
            throw Conflict::because(
                'not-the-key',
                'A row is chosen among those that share the key. Look at the key, with nothing ignored.',
            );
        }
        /**
         * @var array{groups: list<array<'source'|'target', array{digest: string|null, digests: list<string>, key: list<string>}>>}|null
         *     $found
         */
        $found = $this->answers->to($question)->content;
        $ofSide =
            ($found ?? throw Conflict::because('not-looked', 'These rows are still being looked at. Wait until they are there.'))
                ['groups'][$group][$side->value] ?? null;
        if ($ofSide === null || $ofSide['digest'] === null || ($row !== null && ! isset($ofSide['digests'][$row]))) {
            throw Conflict::because('no-such-row', 'This row is not among those that were looked at. Look again.');
        }
        $chosen = new ChosenRow($side, $ofSide['key'], $ofSide['digest'], $ofSide['digests'][$row ?? 0], $reason);
        /** @var list<ChosenDocument> $before */
        $before = $draft->document['keptRows'] ?? [];
        $others = array_values(array_filter(
            $before,
            static fn(array $one): bool => ChosenRow::fromArray($one)->identity() !== $chosen->identity() &&
                ($one['side'] !== $side->value || $one['group'] !== $chosen->group),
        ));
        $keptRows = $row === null ? $others : [...$others, $chosen->toArray()];

        return ($this->saveDraft)(
            $dataset,
            array_filter(['keptRows' => $keptRows]) + array_diff_key($draft->document, ['keptRows' => true]),
            $person,
            $seen,
        )->number;
    }
}
