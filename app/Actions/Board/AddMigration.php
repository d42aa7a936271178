<?php

declare(strict_types=1);

namespace App\Actions\Board;

use App\Actions\Access\GiveRole;
use App\Models\Migration;
use App\Models\Role;
use App\Models\User;
use Illuminate\Database\Connection;

/** Makes a migration; who makes it is its first analyst. */
final readonly class AddMigration
{
    public function __construct(private Connection $database, private GiveRole $giveRole) {}

    /** @param array{name: string, source_label: string, target_label: string} $values */
    public function __invoke(array $values, User $person): Migration
    {
        return $this->database->transaction(function () use ($values, $person): Migration {
            $migration = Migration::query()->create($values);
            ($this->giveRole)($migration, $person, Role::Analyst, by: null);

            return $migration;
        });
    }
}
