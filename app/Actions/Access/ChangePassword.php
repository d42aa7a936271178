<?php

declare(strict_types=1);

namespace App\Actions\Access;

use App\Models\SignInEntry;
use App\Models\TrailAct;
use App\Models\User;
use Illuminate\Contracts\Hashing\Hasher;
use Illuminate\Database\Connection;
use Illuminate\Validation\ValidationException;

/** Gives somebody a new password, who knows the one before. Every other session of the person ends. */
final readonly class ChangePassword
{
    public function __construct(private Connection $database, private Hasher $hasher, private Trail $trail) {}

    /** @throws ValidationException */
    public function __invoke(
        User $person,
        #[\SensitiveParameter]
        string $current,
        #[\SensitiveParameter]
        string $new,
        int $thisSession,
    ): void {
        if (! $this->hasher->check($current, $person->getAuthPassword())) {
            throw ValidationException::withMessages(['current' => 'This is not your password now.']);
        }
        $this->database->transaction(function () use ($person, $new, $thisSession): void {
            $person->update(['password' => $new]);
            SignInEntry::goingOn($person->id)->where('id', '!=', $thisSession)->update(['ended_at' => now()]);
            $this->trail->note(TrailAct::ChangedPassword, $person);
        });
    }
}
