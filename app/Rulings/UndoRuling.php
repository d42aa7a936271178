<?php

declare(strict_types=1);

namespace App\Rulings;

use App\Models\Ruling;
use App\Models\RulingScope;
use App\Models\User;
use App\Problems\Conflict;
use Illuminate\Database\Connection;
use Illuminate\Database\UniqueConstraintViolationException;

/** Undoes an act by adding one: what stood before it stands again. */
final readonly class UndoRuling
{
    public function __construct(private Connection $database, private EffectiveRulings $standings) {}

    /** @throws Conflict when it was undone already */
    public function __invoke(Ruling $ruling, User $person): Ruling
    {
        if ($ruling->scope === RulingScope::Undo) {
            throw Conflict::because('not-undoable', 'An undo cannot be undone. Rule again instead.');
        }
        try {
            return $this->database->transaction(function () use ($ruling, $person): Ruling {
                EffectiveRulings::hold($this->database, $ruling->tally_id);
                $act = Ruling::query()->create([
                    'dataset_id' => $ruling->getAttribute('dataset_id'),
                    'tally_id' => $ruling->tally_id,
                    'scope' => RulingScope::Undo,
                    'undoes_id' => $ruling->id,
                    'reason' => '',
                    'findings' => $ruling->findings,
                    'user_id' => $person->id,
                ]);
                $this->standings->follow($act);

                return $act;
            });
        } catch (UniqueConstraintViolationException) {
            throw Conflict::because('undone-already', 'This ruling was undone already.');
        }
    }
}
