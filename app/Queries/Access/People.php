<?php

declare(strict_types=1);

namespace App\Queries\Access;

use App\Adapters\Database\DatabaseRow;
use App\Models\Invitation;
use App\Models\Membership;
use App\Models\RoleEntry;
use App\Models\User;
use Illuminate\Database\Connection;

/** Who is here, who is invited, and who had which role when. */
final readonly class People
{
    private const PAGE = 200;

    public function __construct(private Connection $database) {}

    /** @return list<array<string, mixed>> by name, with the roles of each */
    public function all(): array
    {
        $seen = [];
        foreach (DatabaseRow::all($this->database, <<<'SQL'
            SELECT user_id, to_char(max(seen_at) AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') AS at FROM sign_ins GROUP BY user_id
            SQL, []) as $row) {
            $seen[$row->int('user_id')] = $row->text('at');
        }

        return array_values(
            User::query()
                ->with('memberships.migration')
                ->orderBy('name')
                ->get()
                ->map(static fn(User $person): array => [
                    'id' => $person->id,
                    'name' => $person->name,
                    'email' => $person->email,
                    'isAdministrator' => $person->is_administrator,
                    'lockedAt' => $person->locked_at?->toIso8601ZuluString(),
                    'seenAt' => $seen[$person->id] ?? null,
                    'roles' => array_values(
                        $person->memberships
                            ->map(static fn(Membership $of): array => [
                                'migrationId' => $of->migration_id,
                                'migration' => $of->migration->name ?? '',
                                'role' => $of->role->value,
                            ])
                            ->all(),
                    ),
                ])
                ->all(),
        );
    }

    /** @return list<array<string, mixed>> that can be used, the newest first */
    public function invitations(): array
    {
        return array_values(
            Invitation::open()
                ->with(['migration', 'by'])
                ->orderByDesc('id')
                ->get()
                ->map(static fn(Invitation $one): array => [
                    'id' => $one->id,
                    'name' => $one->name,
                    'email' => $one->email,
                    'migration' => $one->migration?->name,
                    'role' => $one->role?->value,
                    'isAdministrator' => $one->is_administrator,
                    'by' => $one->by->name,
                    'expiresAt' => $one->expires_at->toIso8601ZuluString(),
                ])
                ->all(),
        );
    }

    /** @return list<array<string, mixed>> the newest first */
    public function history(): array
    {
        return array_values(
            RoleEntry::query()
                ->with(['user', 'by', 'migration'])
                ->orderByDesc('id')
                ->limit(self::PAGE)
                ->get()
                ->map(static fn(RoleEntry $entry): array => [
                    'person' => $entry->user->name,
                    'migration' => $entry->migration->name,
                    'role' => $entry->role?->value,
                    'by' => $entry->by?->name,
                    'at' => $entry->created_at->toIso8601ZuluString(),
                ])
                ->all(),
        );
    }
}
