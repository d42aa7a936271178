<?php

declare(strict_types=1);

namespace App\Actions\Access;

use App\Models\Migration;
use App\Models\Role;
use App\Models\RoleEntry;
use App\Models\TrailAct;
use App\Models\User;
use App\Problems\Conflict;
use Illuminate\Database\Connection;

/** Gives somebody a role in a migration, changes it or ends it. Nobody gives one to themself. */
final readonly class GiveRole
{
    public function __construct(private Connection $database, private Trail $trail) {}

    /**
     * @param  Role|null  $role  null ends the one that the person has
     * @param  User|null  $by  null when the installation does it
     *
     * @throws Conflict
     */
    public function __invoke(Migration $migration, User $person, ?Role $role, ?User $by): void
    {
        if ($role !== null && $by?->id === $person->id) {
            throw Conflict::because('own-role', 'Nobody gives a role to themself. Ask another administrator.');
        }
        $this->database->transaction(function () use ($migration, $person, $role, $by): void {
            $membership = $migration->memberships()->where('user_id', $person->id)->lockForUpdate()->first();
            if ($membership?->role === $role) {
                return;
            }
            $before = $membership?->role->label() ?? 'nothing';
            match (true) {
                $role === null => $membership?->delete(),
                $membership === null => $migration->memberships()->create(['user_id' => $person->id, 'role' => $role]),
                default => $membership->update(['role' => $role]),
            };
            RoleEntry::query()->create([
                'migration_id' => $migration->id,
                'user_id' => $person->id,
                'role' => $role,
                'by_id' => $by?->id,
            ]);
            $this->trail->note(
                $role === null ? TrailAct::EndedRole : TrailAct::GaveRole,
                $by,
                "{$person->name}: {$before} → ".($role?->label() ?? 'nothing'),
                $migration,
            );
        });
    }
}
