<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** People, migrations and datasets, and what changes while work goes on. On a new database; locks nothing. */
return new class () extends Migration {
    public function up(): void
    {
        Schema::create('users', function (Blueprint $table): void {
            $table->id();
            $table->text('name');
            $table->text('email')->unique();
            $table->text('password');
            $table->boolean('is_administrator')->default(false);
            $table->boolean('is_demo')->default(false);
            $table->timestampTz('created_at');
        });
        Schema::create('first_person_codes', function (Blueprint $table): void {
            $table->id();
            $table->text('code_hash');
            $table->smallInteger('tries')->default(0);
            $table->timestampTz('expires_at');
        });
        Schema::create('migrations', function (Blueprint $table): void {
            $table->id();
            $table->text('name')->unique();
            $table->text('source_label');
            $table->text('target_label');
            $table->timestampTz('created_at');
        });
        Schema::create('memberships', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('migration_id')->constrained();
            $table->foreignId('user_id')->constrained();
            $table->text('role');
            $table->unique(['migration_id', 'user_id']);
        });
        Schema::create('datasets', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('migration_id')->constrained();
            $table->text('name');
            $table->timestampTz('created_at');
            $table->unique(['migration_id', 'name']);
        });
        Schema::create('receipts', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignId('dataset_id')->constrained();
            $table->text('side');
            $table->text('file_name');
            $table->bigInteger('bytes');
            $table->bigInteger('received_bytes')->default(0);
            $table->text('state');
            $table->json('found')->nullable();
            $table->json('format')->nullable();
            $table->text('problem')->nullable();
            $table->char('digest', 64)->nullable();
            $table->bigInteger('records_read')->default(0);
            $table->bigInteger('delivery_id')->nullable();
            $table->foreignId('user_id')->constrained();
            $table->timestampsTz();
            $table->index(['dataset_id', 'state']);
        });
        Schema::create('plan_drafts', function (Blueprint $table): void {
            $table->foreignId('dataset_id')->primary()->constrained();
            $table->json('document');
            $table->foreignId('user_id')->nullable()->constrained();
            $table->timestampTz('updated_at');
        });
        Schema::create('key_counts', function (Blueprint $table): void {
            $table->id();
            $table->bigInteger('delivery_id');
            $table->char('columns_digest', 64);
            $table->json('columns');
            $table->text('state');
            $table->bigInteger('rows')->nullable();
            $table->bigInteger('unique_rows')->nullable();
            $table->bigInteger('repeated_rows')->nullable();
            $table->bigInteger('unkeyed_rows')->nullable();
            $table->timestampTz('created_at');
            $table->unique(['delivery_id', 'columns_digest']);
        });
        Schema::create('jobs', function (Blueprint $table): void {
            $table->id();
            $table->string('queue')->index();
            $table->longText('payload');
            $table->unsignedTinyInteger('attempts');
            $table->unsignedInteger('reserved_at')->nullable();
            $table->unsignedInteger('available_at');
            $table->unsignedInteger('created_at');
        });
        DB::statement("ALTER TABLE memberships ADD CHECK (role IN ('analyst', 'data-owner'))");
        DB::statement("ALTER TABLE receipts ADD CHECK (side IN ('source', 'target'))");
        DB::statement("ALTER TABLE receipts ADD CHECK (state IN ('receiving', 'received', 'reading', 'delivered', 'refused'))");
        DB::statement("ALTER TABLE key_counts ADD CHECK (state IN ('queued', 'counted', 'failed'))");
        DB::statement('GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO tally_app');
        // People and what they work on are entered and changed, never removed.
        DB::statement('REVOKE DELETE ON users, migrations, datasets FROM tally_app');
        DB::statement('REVOKE ALL ON schema_changes FROM tally_app');
        DB::statement('GRANT USAGE ON ALL SEQUENCES IN SCHEMA public TO tally_app');
    }
};
