<?php

declare(strict_types=1);

namespace App\Actions\Sources;

use App\Actions\Access\Trail;
use App\Adapters\Sources\SourceAddress;
use App\Adapters\Sources\SourceKind;
use App\Adapters\Sources\SourceProblem;
use App\Adapters\Sources\Sources;
use App\Models\Migration;
use App\Models\SourceConnection;
use App\Models\TrailAct;
use App\Models\User;
use Illuminate\Database\Connection;

/**
 * Keeps a connection of a migration, after it has been tried: what cannot be entered is not kept.
 *
 * @phpstan-import-type Settings from SourceAddress
 */
final readonly class KeepConnection
{
    public function __construct(private Connection $database, private Sources $sources, private Trail $trail) {}

    /**
     * @param  Settings  $settings
     * @param  string|null  $password  null: the one that is kept
     * @return string what the database says it is
     *
     * @throws SourceProblem when it cannot be entered
     */
    public function try(SourceKind $kind, array $settings, #[\SensitiveParameter] ?string $password, ?SourceConnection $kept): string
    {
        $tried = new SourceConnection(['kind' => $kind, 'settings' => $settings, 'secret' => $password ?? (string) $kept?->secret]);

        return $this->sources->kept($kept->label ?? $kind->label(), $tried)->greeting();
    }

    /**
     * @param  Settings  $settings
     *
     * @throws SourceProblem when it cannot be entered
     */
    public function __invoke(
        Migration $migration,
        ?SourceConnection $kept,
        string $label,
        SourceKind $kind,
        array $settings,
        #[\SensitiveParameter]
        ?string $password,
        User $person,
    ): SourceConnection {
        $this->try($kind, $settings, $password, $kept);
        // Without the password: who and where.
        $about = trim("{$label}: {$kind->label()}, ".($settings['file'] ?? $settings['url'] ?? $settings['folder'] ?? implode(' ', [
            $settings['user'] ?? '', 'at', $settings['host'] ?? '', 'port', $settings['port'] ?? $kind->port(), $settings['database'] ?? '',
        ])));

        return $this->database->transaction(function () use ($migration, $kept, $label, $kind, $settings, $password, $person, $about) {
            $connection = $kept ?? new SourceConnection(['migration_id' => $migration->id]);
            $connection
                ->fill([
                    'label' => $label,
                    'kind' => $kind,
                    'settings' => $settings,
                    'user_id' => $person->id,
                    ...$password === null ? [] : ['secret' => $password],
                ])
                ->save();
            $this->trail->note(TrailAct::KeptConnection, $person, $about, $migration);

            return $connection;
        });
    }
}
