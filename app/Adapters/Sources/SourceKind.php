<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/** What rows are drawn from. */
enum SourceKind: string
{
    case Postgresql = 'postgresql';
    case Mysql = 'mysql';
    case Sqlite = 'sqlite';
    case SqlServer = 'sqlserver';
    /** Whatever a driver of ODBC that this machine has leads to. */
    case Odbc = 'odbc';
    /** Pages of records that a web server gives. */
    case Feed = 'feed';
    /** Files that others put into a folder of this machine. */
    case Folder = 'folder';
    /** Files that others put into a folder of another machine, which is entered by SSH. */
    case Sftp = 'sftp';
    /** Files in a bucket of a store. */
    case ObjectStore = 's3';

    public function label(): string
    {
        return match ($this) {
            self::Postgresql => 'PostgreSQL',
            self::Mysql => 'MySQL or MariaDB',
            self::Sqlite => 'SQLite',
            self::SqlServer => 'SQL Server',
            self::Odbc => 'ODBC',
            self::Feed => 'Web feed',
            self::Folder => 'Folder of files',
            self::Sftp => 'Folder by SFTP',
            self::ObjectStore => 'Bucket (S3)',
        };
    }

    /** Where it listens unless somebody says otherwise; 0 where it does not. */
    public function port(): int
    {
        return match ($this) {
            self::Postgresql => 5432,
            self::Mysql => 3306,
            self::SqlServer => 1433,
            self::Sftp => 22,
            self::Odbc, self::Sqlite, self::Feed, self::Folder, self::ObjectStore => 0,
        };
    }

    /** @return list<self> whose deliveries are files that stand there, each with its name */
    public static function ofFiles(): array
    {
        return [self::Folder, self::Sftp, self::ObjectStore];
    }

    /** Whether it can be asked which rows it has as another has them, before any is drawn. */
    public function asksInPlace(): bool
    {
        return in_array($this, [self::Postgresql, self::Mysql, self::Sqlite], true);
    }

    /** Whether this machine has what it takes to talk to it. */
    public function isThere(): bool
    {
        return extension_loaded(match ($this) {
            self::Folder => 'zip',
            self::Postgresql => 'pdo_pgsql',
            self::Mysql => 'pdo_mysql',
            self::Sqlite => 'pdo_sqlite',
            self::SqlServer => 'pdo_dblib',
            self::Odbc => 'pdo_odbc',
            self::Feed, self::ObjectStore => 'curl',
            self::Sftp => 'openssl',
        });
    }
}
