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
        if ($password === null && $kept?->secret !== null && ! self::isSamePlace($settings, $kept->settings)) {
            throw new SourceProblem('It is another place now. Enter the password again, for the one that is kept was given for the other.');
        }
        $tried = new SourceConnection(['kind' => $kind, 'settings' => $settings, 'secret' => $password ?? (string) $kept?->secret]);

        return $this->sources->kept($kept->label ?? $kind->label(), $tried)->greeting();
    }

    /**
     * What is kept is shown to whom it was given for.
     *
     * @param  Settings  $asked
     * @param  Settings  $kept
     */
    private static function isSamePlace(array $asked, array $kept): bool
    {
        return self::placeOf($asked) === self::placeOf($kept);
    }

    /**
     * @param  Settings  $settings
     * @return list<mixed>
     */
    private static function placeOf(array $settings): array
    {
        $url = parse_url($settings['url'] ?? '');

        return [
            strtolower($settings['host'] ?? ''),
            $settings['port'] ?? null,
            $settings['user'] ?? '',
            $settings['hostKey'] ?? '',
            is_array($url) ? [$url['scheme'] ?? '', $url['host'] ?? '', $url['port'] ?? ''] : [],
        ];
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
        $server = implode(' ', [
            $settings['user'] ?? '', 'at', $settings['host'] ?? '', 'port', $settings['port'] ?? $kind->port(),
            $settings['database'] ?? $settings['folder'] ?? '',
        ]);
        $place = isset($settings['host'])
            ? $server
            : implode(', ', array_filter([
                $settings['file'] ?? null, $settings['url'] ?? null, $settings['bucket'] ?? null, $settings['folder'] ?? null,
            ]));
        $about = trim("{$label}: {$kind->label()}, {$place}", ', ');

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
