<?php

declare(strict_types=1);

namespace App\Actions\Sources;

use App\Actions\Deliver\AskForSnapshot;
use App\Adapters\Sources\InPlace\DifferingGroups;
use App\Adapters\Sources\InPlace\InPlaceQuestion;
use App\Models\Draw;
use App\Models\DrawState;
use App\Queries\Sources\DrawnQueries;
use App\Queries\Sources\InPlaceQuestions;
use Illuminate\Database\Connection;
use NineTally\Core\Row\Counted;
use NineTally\Core\Row\Side;

/**
 * Asks both databases of a dataset which groups of rows they have alike, and has the rows of the others drawn: what agrees where it stands
 * is counted, and said, and not drawn.
 */
final readonly class DrawDifferingGroups
{
    public function __construct(
        private Connection $database,
        private InPlaceQuestions $questions,
        private DrawnQueries $queries,
        private DrawDataset $draw,
        private AskForSnapshot $ask,
    ) {}

    /**
     * @throws \App\Adapters\Sources\SourceProblem when they cannot be asked
     * @throws \NineTally\Core\NineTallyException
     */
    public function __invoke(Draw $draw): void
    {
        $question = $this->questions->of($draw->dataset);
        $path = storage_path("work/draw-{$draw->id}");
        $groups = $question->groups($path);
        $found = $question->ask($path, $groups);
        $this->database->transaction(function () use ($draw, $question, $groups, $found): void {
            $isOurs = Draw::query()
                ->lockForUpdate()
                ->whereKey($draw->id)
                ->where('state', DrawState::Asking->value)
                ->exists();
            if (! $isOurs) {
                return;
            }
            if ($found->numbers === []) {
                $draw->goOn(DrawState::Done, $this->said($found).'Nothing differs, so nothing was drawn.');
            } elseif (count($found->numbers) * 2 > $found->groups) {
                $this->draw->askForAll($draw, $this->queries->of($draw->dataset));
                $draw->goOn(DrawState::Drawing, $this->said($found).'That is little, so all rows are drawn.');
            } else {
                $this->askForDiffering($draw, $question, $groups, $found);
                $draw->goOn(DrawState::Drawing, $this->said($found).'The rows of the others are drawn.');
            }
        });
    }

    private function said(DifferingGroups $found): string
    {
        $agreeing = $found->groups - count($found->numbers);

        return Counted::of($found->rows['source'], 'row').
            ' of the source and '.
            number_format($found->rows['target']).
            ' of the target stand in '.
            Counted::of($found->groups, 'group').
            '; in '.
            number_format($agreeing).
            ' of them both sides are equal, byte for byte: '.
            Counted::of($found->agreed, 'row').
            ' on each side. ';
    }

    private function askForDiffering(Draw $draw, InPlaceQuestion $question, int $groups, DifferingGroups $found): void
    {
        $receipts = [];
        foreach ($this->queries->of($draw->dataset) as $side => $parts) {
            $inPlace = [
                'rows' => $found->rows[$side], 'agreed' => $found->agreed, 'groups' => $found->groups,
                'differing' => count($found->numbers),
            ];
            $receipt = ($this->ask)(
                $draw->dataset,
                Side::from($side),
                ['inPlace' => $inPlace] + $parts[0]['query'],
                $draw->user,
                $question->rows($side, $groups, $found->numbers === [] ? [0] : $found->numbers),
            );
            $receipts[$side][] = ['receipt' => $receipt->id, 'label' => $parts[0]['label']];
        }
        $draw->update(['receipts' => $receipts]);
    }
}
