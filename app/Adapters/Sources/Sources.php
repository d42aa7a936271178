<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

use App\Adapters\Sources\Files\FileSource;
use App\Adapters\Sources\Files\FileStore;
use App\Adapters\Sources\Files\LocalFolder;
use App\Adapters\Sources\Files\ObjectStore;
use App\Adapters\Sources\Files\SftpDoor;
use App\Adapters\Sources\Files\SftpStore;
use App\Adapters\Storage\BlobStore;
use App\Models\Migration;
use App\Models\SourceConnection;
use NineTally\Core\Intake\UnreadableFile;

/**
 * Databases that deliveries are drawn from, each by the name that people know it by: those that whoever installs Nine Tally has made
 * known, and the connections that an administrator made for a migration. Each is of one migration and offered in no other.
 */
final readonly class Sources
{
    /** Seconds that a file has to rest before it is taken for whole. */
    private const REST = 10;

    /**
     * @param  array<string, array{host: string, port: int, database: string, user: string, password: string, migration?: string}>  $sources
     * @param  string  $files  the folder in which files of SQLite stand
     */
    public function __construct(
        private array $sources,
        private Authorities $authorities,
        private OuterGate $gate,
        private BlobStore $blobs,
        private string $files,
        private int $mostBytes,
    ) {}

    /** @return list<string> */
    public function names(Migration $migration): array
    {
        $installed = array_keys(
            array_filter($this->sources, static fn(array $source): bool => ($source['migration'] ?? null) === $migration->name),
        );

        $connections = SourceConnection::query()->where('migration_id', $migration->id)->orderBy('label')->get(['label'])->all();
        $labels = array_map(static fn(SourceConnection $connection): string => $connection->label, array_values($connections));

        return [...$installed, ...array_values(array_diff($labels, $installed))];
    }

    /** @return list<string> those that are of one of some kinds */
    public function ofKind(Migration $migration, SourceKind ...$kinds): array
    {
        $found = SourceConnection::query()
            ->where('migration_id', $migration->id)
            ->whereIn('kind', $kinds)
            ->orderBy('label')
            ->get(['label'])
            ->all();

        return array_map(static fn(SourceConnection $one): string => $one->label, array_values($found));
    }

    public function kindOf(Migration $migration, string $name): ?SourceKind
    {
        $isInstalled = ($this->sources[$name]['migration'] ?? null) === $migration->name;

        return $isInstalled
            ? SourceKind::Postgresql
            : SourceConnection::query()->where(['migration_id' => $migration->id, 'label' => $name])->first()?->kind;
    }

    /** @throws UnreadableFile when the migration knows no connection of this name */
    public function of(Migration $migration, string $name): RowSource
    {
        $installed = $this->sources[$name] ?? null;
        if ($installed !== null && ($installed['migration'] ?? null) === $migration->name) {
            return $this->at($name, SourceAddress::of(SourceKind::Postgresql, $installed, $installed['password']));
        }
        $connection = SourceConnection::query()->where(['migration_id' => $migration->id, 'label' => $name])->first()
            ?? throw UnreadableFile::queryFails($name, 'no connection of this name is known in this migration');

        return $this->kept($name, $connection);
    }

    /**
     * @throws UnreadableFile when the migration knows no source of this name
     * @throws SourceProblem when it is no database
     */
    public function database(Migration $migration, string $name): SourceDatabase
    {
        $source = $this->of($migration, $name);

        return $source instanceof SourceDatabase ? $source : throw new SourceProblem("{$name} is no database, and has no tables.");
    }

    /** @throws SourceProblem when this machine lacks what it takes to talk to it */
    public function kept(string $name, SourceConnection $connection): RowSource
    {
        $settings = $connection->settings;

        return match ($connection->kind) {
            SourceKind::Feed => new FeedSource(
                $name,
                FeedAddress::of($settings, (string) $connection->secret),
                $this->gate,
                $this->mostBytes,
                $connection->exists ? new FeedMemory($this->blobs, $connection->id) : null,
            ),
            SourceKind::Folder, SourceKind::Sftp, SourceKind::ObjectStore => new FileSource(
                $name,
                $this->store($connection),
                $settings['marker'] ?? '',
                $settings['rest'] ?? self::REST,
                $this->mostBytes,
            ),
            default => $this->at($name, $connection->address()),
        };
    }

    private function store(SourceConnection $connection): FileStore
    {
        $settings = $connection->settings;
        $folder = $settings['folder'] ?? '';
        $user = $settings['user'] ?? '';
        $secret = (string) $connection->secret;

        return match ($connection->kind) {
            SourceKind::Sftp => new SftpStore(
                new SftpDoor(
                    $settings['host'] ?? '',
                    $settings['port'] ?? SourceKind::Sftp->port(),
                    $user,
                    $settings['hostKey'] ?? '',
                    $secret,
                ),
                $folder,
            ),
            SourceKind::ObjectStore => new ObjectStore(
                $this->gate,
                $settings['url'] ?? '',
                $settings['region'] ?? '',
                $settings['bucket'] ?? '',
                $folder,
                $user,
                $secret,
            ),
            default => new LocalFolder($this->files, $folder),
        };
    }

    /** @throws SourceProblem when this machine lacks what it takes to talk to it */
    public function at(string $name, SourceAddress $address): SourceDatabase
    {
        if (! $address->kind->isThere()) {
            throw new SourceProblem(
                "This machine cannot talk to {$address->kind->label()}. Have whoever runs Nine Tally install PHP's driver for it.",
            );
        }

        return match ($address->kind) {
            SourceKind::Postgresql => new PostgresqlSource($name, $address, $this->authorities, $this->mostBytes),
            SourceKind::Mysql => new MysqlSource($name, $address, $this->authorities, $this->mostBytes),
            SourceKind::Sqlite => new SqliteSource($name, $address, $this->files, $this->mostBytes),
            SourceKind::SqlServer, SourceKind::Odbc => new PdoSource($name, $address, $this->mostBytes),
            default => throw new \LogicException('It is no database.'),
        };
    }
}
