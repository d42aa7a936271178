<?php

declare(strict_types=1);

namespace App\Actions\Access;

use App\Models\Invitation;
use App\Models\TrailAct;
use App\Models\User;
use App\Problems\Conflict;
use Illuminate\Database\Connection;

/** Makes the person who was invited, with the role that came with the invitation. A link is used once. */
final readonly class AcceptInvitation
{
    public function __construct(private Connection $database, private GiveRole $giveRole, private Trail $trail) {}

    /** @throws Conflict when the link has ended */
    public function __invoke(string $token, string $name, #[\SensitiveParameter] string $password): User
    {
        return $this->database->transaction(function () use ($token, $name, $password): User {
            $invitation = self::open($token, isLocked: true);
            if (User::withEmail($invitation->email)->exists()) {
                throw Conflict::because('known-person', "{$invitation->email} has an account already. Sign in with it.");
            }
            $person = User::query()->create([
                'name' => $name,
                'email' => $invitation->email,
                'password' => $password,
                'is_administrator' => $invitation->is_administrator,
            ]);
            $invitation->update(['ended_at' => now(), 'user_id' => $person->id]);
            $this->trail->note(TrailAct::Joined, $person, "invited by {$invitation->by->name}", $invitation->migration);
            if ($invitation->migration !== null && $invitation->role !== null) {
                ($this->giveRole)($invitation->migration, $person, $invitation->role, $invitation->by);
            }

            return $person;
        });
    }

    /** @throws Conflict when there is no such link, or it has ended: both are one answer */
    public static function open(string $token, bool $isLocked = false): Invitation
    {
        $open = Invitation::open()->where('token_hash', hash('sha256', $token));

        return ($isLocked ? $open->lockForUpdate() : $open)->first() ?? throw Conflict::because(
            'invitation-ended',
            'This invitation has ended: a link is used once, and lasts a week. Ask the administrator for a new one.',
        );
    }
}
