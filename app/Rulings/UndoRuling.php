<?php

declare(strict_types=1);

namespace App\Rulings;

use App\Actions\Access\Trail;
use App\Models\Ruling;
use App\Models\RulingScope;
use App\Models\Tally;
use App\Models\TrailAct;
use App\Models\User;
use App\Problems\Conflict;
use App\Signing\SignOff;
use Illuminate\Database\Connection;
use Illuminate\Database\UniqueConstraintViolationException;

/**
 * Undoes an act by adding one. It takes effect from the newest tally on, whichever the act was entered on: what stood before it stands
 * again
 * there, or is open. Older tallies stay as they were looked at.
 */
final readonly class UndoRuling
{
    public function __construct(private Connection $database, private EffectiveRulings $standings, private Trail $trail) {}

    /** @throws Conflict when it was undone already */
    public function __invoke(Ruling $ruling, User $person): Ruling
    {
        if ($ruling->scope === RulingScope::Undo) {
            throw Conflict::because('not-undoable', 'An undo cannot be undone. Rule again instead.');
        }
        try {
            return $this->database->transaction(function () use ($ruling, $person): Ruling {
                $newest = $this->newestTally($ruling);
                SignOff::mustNotLock($newest);
                $act = Ruling::query()->create([
                    'dataset_id' => $newest->dataset_id,
                    'tally_id' => $newest->id,
                    'scope' => RulingScope::Undo,
                    'undoes_id' => $ruling->id,
                    'reason' => '',
                    'findings' => $this->standings->findingsOf($newest, $ruling),
                    'user_id' => $person->id,
                ]);
                $this->standings->follow($act);
                $about = "{$newest->dataset->name}, tally {$newest->number}: undid ruling {$ruling->id}";
                $this->trail->note(TrailAct::UndidRuling, $person, $about, $newest->dataset->migration);

                return $act;
            });
        } catch (UniqueConstraintViolationException) {
            throw Conflict::because('undone-already', 'This ruling was undone already.');
        }
    }

    /** The newest tally, held: while the next one is entered, this waits, and goes on with that. */
    private function newestTally(Ruling $ruling): Tally
    {
        $newest = null;
        do {
            $held = $newest;
            $newest = $ruling->tally->dataset->latestTally() ?? $ruling->tally;
            EffectiveRulings::hold($this->database, $newest->id);
        } while ($held?->id !== $newest->id);

        return $newest;
    }
}
