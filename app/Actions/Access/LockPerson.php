<?php

declare(strict_types=1);

namespace App\Actions\Access;

use App\Models\SignInEntry;
use App\Models\TrailAct;
use App\Models\User;
use App\Problems\Conflict;
use Illuminate\Database\Connection;

/** Locks somebody out, and ends what goes on; nothing that they did is touched. What they are asked can go to somebody else. */
final readonly class LockPerson
{
    public function __construct(private Connection $database, private Trail $trail) {}

    /**
     * @param  User|null  $heir  whom the questions go to that are still asked of the person
     *
     * @throws Conflict
     */
    public function __invoke(User $person, bool $isLocked, ?User $heir, User $by): void
    {
        if ($isLocked && $person->id === $by->id) {
            throw Conflict::because('own-lock', 'Nobody locks themself out. Ask another administrator.');
        }
        $this->database->transaction(function () use ($person, $isLocked, $heir, $by): void {
            User::query()->whereKey($person->id)->lockForUpdate()->firstOrFail();
            $person->update(['locked_at' => $isLocked ? now() : null]);
            if ($isLocked) {
                SignInEntry::goingOn($person->id)->update(['ended_at' => now()]);
            }
            if ($isLocked && $heir !== null && $heir->id !== $person->id) {
                $this->database->table('moved_questions')->insert([
                    'from_id' => $person->id,
                    'to_id' => $heir->id,
                    'by_id' => $by->id,
                    'created_at' => now(),
                ]);
            }
            $this->trail->note(
                $isLocked ? TrailAct::Locked : TrailAct::Unlocked,
                $by,
                $person->name.($isLocked && $heir !== null ? ", questions to {$heir->name}" : ''),
            );
        });
    }
}
