package yarrowmark.server.access;

import org.springframework.data.jpa.repository.JpaRepository;

interface FormerNameRepository extends JpaRepository<FormerName, String> {}
