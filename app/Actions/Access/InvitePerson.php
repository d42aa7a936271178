<?php

declare(strict_types=1);

namespace App\Actions\Access;

use App\Models\Invitation;
use App\Models\Migration;
use App\Models\Role;
use App\Models\TrailAct;
use App\Models\User;
use App\Problems\Conflict;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;

/** Invites somebody by a link that ends after a week, or when it was used. The link is told once: only its digest is kept. */
final readonly class InvitePerson
{
    private const DAYS = 7;

    private const TOKEN_CHARACTERS = 43;

    public function __construct(private Connection $database, private Trail $trail) {}

    /**
     * @param  Role|null  $role  in the migration, where one is named
     * @return array{Invitation, string} with the token of its link
     *
     * @throws Conflict when there is such a person already
     */
    public function __invoke(
        string $name,
        string $email,
        ?Migration $migration,
        ?Role $role,
        bool $isAdministrator,
        User $by,
    ): array {
        return $this->database->transaction(function () use ($name, $email, $migration, $role, $isAdministrator, $by): array {
            if (User::withEmail($email)->exists()) {
                throw Conflict::because('known-person', "{$email} has an account already. Give that person a role instead.");
            }
            Invitation::open()->whereRaw('lower(email) = lower(?)', [$email])->update(['ended_at' => now()]);
            $token = Str::random(self::TOKEN_CHARACTERS);
            $invitation = Invitation::query()->create([
                'name' => $name,
                'email' => $email,
                'migration_id' => $migration?->id,
                'role' => $migration === null ? null : $role,
                'is_administrator' => $isAdministrator,
                'token_hash' => hash('sha256', $token),
                'by_id' => $by->id,
                'expires_at' => now()->addDays(self::DAYS),
            ]);
            $this->trail->note(TrailAct::Invited, $by, $email, $migration);

            return [$invitation, $token];
        });
    }
}
